namespace TinRabbit.Server.Files.Tables;

/// <summary>A line of pasted text that could not be read.</summary>
/// <param name="Line">Counted from 1.</param>
/// <param name="Text">As pasted.</param>
/// <param name="Reason">The problem, with its column.</param>
public sealed record BadLine(int Line, string Text, string Reason);
