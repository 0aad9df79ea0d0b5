namespace TinRabbit.Server.Files.Documents;

/// <summary>A rival's listing.</summary>
/// <param name="MarketListing">What the market calls it; null where it was pasted.</param>
/// <param name="First">What was seen of it first, and <paramref name="Latest"/> last.</param>
public sealed record DocumentRival(
    string Market,
    [MaxLength(Bounds.NameLength)] string Source,
    DateTime SavedAt,
    DocumentRivalState First,
    DateTime SeenAt,
    DocumentRivalState Latest,
    [MaxLength(Bounds.NameLength)] string? MarketListing = null
);
