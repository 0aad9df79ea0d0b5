using TinRabbit.Server.Shelf;

namespace TinRabbit.Server.Picks;

/// <summary>A pick with its numbers in one market.</summary>
public sealed record MeasuredPick(PickRow Pick, Measured Numbers);
