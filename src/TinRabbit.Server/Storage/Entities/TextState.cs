using TinRabbit.Server.Listings;

namespace TinRabbit.Server.Storage;

/// <summary>A listing's text that a change made, and the one before it: undone only while the listing still has the text that the change made.</summary>
public sealed record TextState(int ListingId, ListingText Before, ListingText After)
{
    /// <summary>The take that was saved with it; null where none was.</summary>
    public string? Take { get; init; }
}
