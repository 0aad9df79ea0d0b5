namespace TinRabbit.Server.Files.Documents;

/// <summary>The web shop's settings.</summary>
public sealed record DocumentSite(
    [MaxLength(Bounds.NameLength)] string Brand,
    [MaxLength(Bounds.NoteLength)] string Address,
    [MaxLength(20)] string Language,
    [MaxLength(2)] string Country,
    [MaxLength(60)] string TitleSuffix
);
