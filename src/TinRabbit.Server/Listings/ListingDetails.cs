namespace TinRabbit.Server.Listings;

/// <summary>What a marketplace's own export says of a listing beside its text. Empty or null is unknown.</summary>
/// <param name="Number">The marketplace's number for it.</param>
/// <param name="Sku">The seller's own number.</param>
/// <param name="Price">In <paramref name="Currency"/>.</param>
/// <param name="Currency">ISO 4217.</param>
/// <param name="Quantity">How many are in stock.</param>
/// <param name="Address">Where it can be opened.</param>
/// <param name="Pictures">Addresses of its pictures, as the export names them.</param>
/// <param name="Others">The cells of columns that nothing here uses, by heading, so that an export for upload has them again.</param>
public sealed record ListingDetails(
    string Number = "",
    string Sku = "",
    decimal? Price = null,
    string Currency = "",
    int? Quantity = null,
    string Address = "",
    IReadOnlyList<string>? Pictures = null,
    IReadOnlyDictionary<string, string>? Others = null
);
