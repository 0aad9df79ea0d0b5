namespace TinRabbit.Server.Storage;

/// <summary>A listing that was archived or taken back: when it was archived before the change; null where it was not.</summary>
public sealed record ArchivedState(int ListingId, DateTime? Before);
