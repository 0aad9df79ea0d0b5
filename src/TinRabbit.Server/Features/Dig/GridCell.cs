using TinRabbit.Server.Shelf;

namespace TinRabbit.Server.Features.Dig;

/// <summary>A phrase of the grid.</summary>
/// <param name="Text">As shoppers type it.</param>
/// <param name="Numbers">Its numbers in the market.</param>
public sealed record GridCell(string Text, string Key, Measured Numbers);
