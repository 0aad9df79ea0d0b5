using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using TinRabbit.Core.Platforms;
using TinRabbit.Market;
using TinRabbit.Server.Storage;

namespace TinRabbit.Server.Shop;

/// <summary>The shop as the head of every screen shows it.</summary>
public sealed record ShopView(string Name, IReadOnlyList<ProductView> Products, IReadOnlyList<MarketView> Markets);

/// <summary>A product and its listings, by platform.</summary>
public sealed record ProductView(int Id, string Name, Facts Facts, IReadOnlyList<string> Pictures, IReadOnlyDictionary<string, int> Listings);

/// <summary>A place to look terms up in and to write for.</summary>
public sealed record MarketView(string Id, string PlatformId, string PlatformName, string About, string Country, string CountryName);

/// <summary>A new product, or new facts for one.</summary>
public sealed record ProductRequest(string Name, Facts? Facts, IReadOnlyList<string>? Pictures);

internal static class ShopApi
{
    public static void MapShop(this IEndpointRouteBuilder app)
    {
        var api = app.MapGroup("/api").WithTags("Shop");
        api.MapGet("/shop", async (TinContext db, IMarket market, CancellationToken stop) =>
        {
            var shop = await db.Shops.AsNoTracking().OrderBy(s => s.Id).FirstAsync(stop);
            var products = await db.Products.AsNoTracking().Include(p => p.Listings).Include(p => p.Pictures).OrderBy(p => p.Id).ToListAsync(stop);
            var platforms = (await db.Platforms.AsNoTracking().ToListAsync(stop)).ToDictionary(p => p.Id, p => PlatformJson.Read(p.Profile));
            return TypedResults.Ok(new ShopView(
                shop.Name,
                [.. products.Select(View)],
                [.. market.Places.Where(m => platforms.ContainsKey(m.PlatformId)).Select(m =>
                    new MarketView(m.Id, m.PlatformId, platforms[m.PlatformId].Name, platforms[m.PlatformId].About, m.Country, m.CountryName))]));
        }).WithName("GetShop");

        api.MapPost("/products", async Task<Ok<ProductView>> (ProductRequest request, TinContext db, CancellationToken stop) =>
        {
            var product = new ProductRow { Name = NameOf(request), Facts = request.Facts ?? new(), ShopId = await db.Shops.OrderBy(s => s.Id).Select(s => s.Id).FirstAsync(stop) };
            Set(product, request);
            foreach (var platform in await db.Platforms.Select(p => p.Id).ToListAsync(stop))
                product.Listings.Add(new() { PlatformId = platform, SavedAt = DateTime.UtcNow });
            db.Products.Add(product);
            await db.SaveChangesAsync(stop);
            return TypedResults.Ok(View(product));
        }).WithName("AddProduct").ProducesValidationProblem();

        api.MapPost("/products/{id:int}/listings/{platformId}", async Task<Results<Ok<ProductView>, NotFound>> (int id, string platformId, TinContext db, CancellationToken stop) =>
        {
            if (await db.Products.Include(p => p.Pictures).Include(p => p.Listings).FirstOrDefaultAsync(p => p.Id == id, stop) is not { } product || await db.Platforms.FindAsync([platformId], stop) is null)
                return TypedResults.NotFound();
            if (product.Listings.All(l => l.PlatformId != platformId))
                product.Listings.Add(new() { PlatformId = platformId, SavedAt = DateTime.UtcNow });
            await db.SaveChangesAsync(stop);
            return TypedResults.Ok(View(product));
        }).WithName("AddListing");

        api.MapPut("/products/{id:int}", async Task<Results<Ok<ProductView>, NotFound>> (int id, ProductRequest request, TinContext db, CancellationToken stop) =>
        {
            if (await db.Products.Include(p => p.Pictures).Include(p => p.Listings).FirstOrDefaultAsync(p => p.Id == id, stop) is not { } product)
                return TypedResults.NotFound();
            product.Name = NameOf(request);
            Set(product, request);
            await db.SaveChangesAsync(stop);
            return TypedResults.Ok(View(product));
        }).WithName("SaveProduct").ProducesValidationProblem();
    }

    private static string NameOf(ProductRequest request) =>
        request.Name.Trim() is { Length: > 0 and <= 120 } name ? name : throw new FormatProblems([new("name", "A product needs a name of at most 120 characters.")]);

    private static void Set(ProductRow product, ProductRequest request)
    {
        product.Facts = request.Facts ?? product.Facts;
        if (request.Pictures is not { } pictures)
            return;
        product.Pictures.Clear();
        product.Pictures.AddRange(pictures.Select((d, i) => new PictureRow { Description = d, Order = i }));
    }

    private static ProductView View(ProductRow product) => new(
        product.Id, product.Name, product.Facts, [.. product.Pictures.OrderBy(p => p.Order).Select(p => p.Description)],
        product.Listings.ToDictionary(l => l.PlatformId, l => l.Id));
}
