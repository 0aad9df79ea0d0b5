using TinRabbit.Server.Listings;
using TinRabbit.Server.Picks;

namespace TinRabbit.Server.Features.Weigh;

/// <summary>Which places to compare.</summary>
/// <param name="Country">The country of the markets.</param>
/// <param name="ListingId">The listing that is open.</param>
/// <param name="Fields">Its draft; null weighs what is saved.</param>
public sealed record PlatformsRequest([MaxLength(8)] string Country, int ListingId, JsonElement? Fields);

/// <summary>A product's picks in every place where it is listed.</summary>
/// <param name="Platforms">Its listings, each in the market of its platform in one country.</param>
/// <param name="Terms">The picks that count.</param>
public sealed record ProductPlatforms(IReadOnlyList<PlacedListing> Platforms, IReadOnlyList<PlacedTerm> Terms);

/// <summary>One of a product's listings, weighed in one market.</summary>
/// <param name="Reach">0–100; null without picks.</param>
/// <param name="Grip">0–100; null without picks.</param>
/// <param name="Lost">Searches/mo of picks that cannot find it; null where none is known.</param>
/// <param name="LostPicks">Picks that cannot find it.</param>
public sealed record PlacedListing(int ListingId, string MarketId, string Name, double? Reach, double? Grip, double? Lost, int LostPicks);

/// <summary>A pick in every place.</summary>
/// <param name="Places">One for each of <see cref="ProductPlatforms.Platforms"/>.</param>
public sealed record PlacedTerm(string Key, string Text, IReadOnlyList<PlacedHolding> Places);

/// <summary>How a pick is held in one place, and what it would bring there.</summary>
/// <param name="Volume">Searches/mo there; null when unknown.</param>
/// <param name="Grip">0–1.</param>
public sealed record PlacedHolding(double? Volume, Grade Grade, double Grip, IReadOnlyList<string> Missing);

/// <summary>A draft into which the texts of another platform are brought.</summary>
/// <param name="From">The listing that they come from.</param>
public sealed record BringRequest(string MarketId, JsonElement? Fields, int From);

/// <summary>What the texts of another platform would change.</summary>
/// <param name="Grip">The draft's grip as it is, 0–100.</param>
/// <param name="All">Its grip with all of them.</param>
public sealed record BroughtView(double Grip, double All, IReadOnlyList<BroughtField> Fields);

/// <summary>A field as the other platform's text would make it.</summary>
/// <param name="Field">Its key.</param>
/// <param name="Before">The draft's text, its items one a line.</param>
/// <param name="After">The other text, fitted to this platform's limits.</param>
/// <param name="Cut">Whether it was shortened to fit.</param>
/// <param name="Gain">Grip with this field alone brought over − grip as it is.</param>
public sealed record BroughtField(string Field, string Label, string Before, string After, JsonNode? Value, bool Cut, double Gain);

internal static class ProductPlatformsApi
{
    public static void MapProductPlatforms(this IEndpointRouteBuilder app)
    {
        app.MapPost("/api/products/{id:int}/platforms", CompareProductPlatforms);
        app.MapPost("/api/listings/{id:int}/bring", PreviewBring);
    }

    private static async Task<ProductPlatforms> CompareProductPlatforms(
        int id,
        PlatformsRequest request,
        TinContext db,
        ProductComparison comparison,
        CancellationToken stop
    )
    {
        var listings = await db
            .Listings.AsNoTracking()
            .Include(l => l.Platform)
            .Where(l => l.ProductId == id && l.ArchivedAt == null)
            .OrderBy(l => l.Id)
            .ToListAsync(stop);
        if (listings.Count == 0)
            throw new NotThereException();
        return await comparison.Of(id, listings, request, stop);
    }

    private static async Task<BroughtView> PreviewBring(
        int id,
        BringRequest request,
        TinContext db,
        PreparedPicksCache ready,
        CancellationToken stop
    )
    {
        if (
            await OpenDraft.Open(db, ready, id, new(request.MarketId, request.Fields), stop) is not { } open
            || await db.FindListing(request.From, stop) is not { } other
            || other.ProductId != open.Listing.ProductId
        )
            throw new NotThereException();
        return CopyFromPlatform.Preview(open, other, stop);
    }
}
