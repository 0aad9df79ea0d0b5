namespace TinRabbit.Server.Listings;

/// <summary>A finding that the seller dismissed.</summary>
public sealed class AsideRow
{
    public int Id { get; set; }
    public int ListingId { get; set; }

    /// <summary>The finding's key: it names the text it is about.</summary>
    public required string Key { get; set; }
    public DateTime At { get; set; }

    /// <summary>A finding that is dismissed now.</summary>
    public static AsideRow Of(int listingId, string key, DateTime now) =>
        new()
        {
            ListingId = listingId,
            Key = key,
            At = now,
        };
}
