namespace TinRabbit.Server.Files.Tables;

/// <summary>A pasted term.</summary>
public sealed record PastedTerm(int Line, string Text, long? Volume, long? Competition);
