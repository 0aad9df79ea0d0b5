namespace TinRabbit.Server.Files.Documents;

/// <summary>A listing's figures of one day; null is unknown.</summary>
public sealed record DocumentFigure(
    string Market,
    DateOnly Day,
    [MaxLength(Bounds.NameLength)] string Source,
    long? Views = null,
    long? Clicks = null,
    long? Sales = null
);
