namespace TinRabbit.Server.Files.Documents;

/// <summary>A saved title.</summary>
public sealed record DocumentTake(
    [MaxLength(Bounds.ReadLength)] string Text,
    [MaxLength(Bounds.NameLength)] string Name = "",
    DateTime? At = null
);
