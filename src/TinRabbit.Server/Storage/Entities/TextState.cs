namespace TinRabbit.Server.Storage;

/// <summary>A listing's text that a change made, and the one before it: undone only while the listing still has the text that the change made.</summary>
public sealed record TextState(int ListingId, string Before, string After);
