namespace TinRabbit.Server.Drops;

/// <summary>Where something is dropped.</summary>
/// <param name="Shop">The seller's shop.</param>
/// <param name="Market">The market that is worked in.</param>
/// <param name="ListingId">The listing that is worked on; null for none.</param>
/// <param name="Term">The term that is looked up; null for none.</param>
internal sealed record DropContext(string Shop, MarketPlace Market, int? ListingId, string? Term);
