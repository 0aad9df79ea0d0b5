namespace TinRabbit.Server.Features.Dig;

/// <summary>A word against each head.</summary>
/// <param name="Own">Whether it is true of the product by its facts.</param>
public sealed record GridRow(string Word, bool Own, IReadOnlyList<GridCell> Cells);
