using TinRabbit.Server.Listings;

namespace TinRabbit.Server.Files.Documents;

/// <summary>A listing.</summary>
/// <param name="Fields">Its texts by field.</param>
/// <param name="Takes">Titles that were saved.</param>
/// <param name="Records">What happened with it.</param>
/// <param name="Details">What the marketplace's own export says of it beside its text.</param>
public sealed record DocumentListing(
    string Platform,
    JsonObject Fields,
    [Term] string? Lead = null,
    IReadOnlyList<DocumentTake>? Takes = null,
    DocumentRecords? Records = null,
    ListingDetails? Details = null
);
