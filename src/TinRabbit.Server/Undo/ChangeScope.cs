namespace TinRabbit.Server.Undo;

/// <summary>What a change belongs to.</summary>
/// <param name="Screen">Where it was made.</param>
/// <param name="ProductId">The product; null for the shop as a whole.</param>
/// <param name="ListingId">The listing; null where it is not about one.</param>
/// <param name="PageId">The page; null where it is not about one.</param>
public sealed record ChangeScope(Screen Screen, int? ProductId = null, int? ListingId = null, int? PageId = null);
