namespace TinRabbit.Server.Files.Tables;

/// <summary>A row that could not be read.</summary>
/// <param name="Cells">As in the file.</param>
public sealed record BadRow(int Row, string Reason, IReadOnlyList<string> Cells);
