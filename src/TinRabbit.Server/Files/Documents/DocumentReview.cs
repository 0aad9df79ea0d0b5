namespace TinRabbit.Server.Files.Documents;

/// <summary>A review.</summary>
/// <param name="OfRivals">Whether it is about a rival's product.</param>
/// <param name="Rival">The place of that rival, from 0, among the listing's; null where it is not known.</param>
/// <param name="Stars">1–5; null where they are not known.</param>
public sealed record DocumentReview(
    [MaxLength(Bounds.ReviewLength)] string Text,
    [MaxLength(Bounds.NameLength)] string Source,
    bool OfRivals = false,
    int? Rival = null,
    double? Stars = null,
    DateOnly? At = null,
    [MaxLength(2 * Bounds.NameLength)] string Author = ""
);
