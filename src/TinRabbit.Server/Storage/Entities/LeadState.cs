namespace TinRabbit.Server.Storage;

/// <summary>A listing's lead that a change set, and the one before it, by their keys: undone only while the listing still has the one that the change set.</summary>
public sealed record LeadState(int ListingId, string? Before, string? After);
