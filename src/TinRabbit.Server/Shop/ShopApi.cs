using System.ComponentModel.DataAnnotations;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using TinRabbit.Core;
using TinRabbit.Core.Platforms;
using TinRabbit.Market;
using TinRabbit.Server.Storage;

namespace TinRabbit.Server.Shop;

/// <summary>The shop as the head of every screen shows it.</summary>
public sealed record ShopView(string Name, IReadOnlyList<ProductView> Products, IReadOnlyList<MarketView> Markets);

/// <summary>A product and its listings, by platform.</summary>
/// <param name="Revision">Counts the changes to name and facts.</param>
/// <param name="PicturesRevision">Counts the changes to the alt texts.</param>
public sealed record ProductView(int Id, string Name, Facts Facts, IReadOnlyList<string> Pictures, IReadOnlyDictionary<string, int> Listings, int Revision, int PicturesRevision);

/// <summary>A place to look terms up in and to write for.</summary>
public sealed record MarketView(string Id, string PlatformId, string PlatformName, string About, string Country, string CountryName);

/// <summary>A new product.</summary>
/// <param name="Pictures">The alt text of each picture.</param>
public sealed record ProductRequest(string Name, Facts? Facts, [MaxLength(Bounds.Pictures), EachMaxLength(Bounds.NoteLength)] IReadOnlyList<string>? Pictures);

/// <summary>A new name for a product.</summary>
/// <param name="Revision">The <see cref="ProductView.Revision"/> that it was made from.</param>
public sealed record ProductNameRequest(string Name, int Revision);

/// <summary>New alt texts for a product, all of them.</summary>
/// <param name="Revision">The <see cref="ProductView.PicturesRevision"/> that they were made from.</param>
public sealed record PicturesRequest([MaxLength(Bounds.Pictures), EachMaxLength(Bounds.NoteLength)] IReadOnlyList<string> Pictures, int Revision);

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
            var product = new ProductRow { Name = NameOf(request.Name), Facts = request.Facts ?? new(), ShopId = await db.Shops.OrderBy(s => s.Id).Select(s => s.Id).FirstAsync(stop) };
            SetPictures(product, request.Pictures ?? []);
            foreach (var platform in await db.Platforms.Select(p => p.Id).ToListAsync(stop))
                product.Listings.Add(new() { PlatformId = platform, SavedAt = DateTime.UtcNow });
            db.Products.Add(product);
            await db.SaveChangesAsync(stop);
            return TypedResults.Ok(View(product));
        }).WithName("AddProduct").ProducesValidationProblem();

        api.MapPost("/products/{id:int}/listings/{platformId}", async Task<Results<Ok<ProductView>, NotFound>> (int id, string platformId, TinContext db, CancellationToken stop) =>
        {
            if (await Find(db, id, stop) is not { } product || await db.Platforms.FindAsync([platformId], stop) is null)
                return TypedResults.NotFound();
            if (product.Listings.All(l => l.PlatformId != platformId))
                product.Listings.Add(new() { PlatformId = platformId, SavedAt = DateTime.UtcNow });
            await db.SaveChangesAsync(stop);
            return TypedResults.Ok(View(product));
        }).WithName("AddListing");

        api.MapPut("/products/{id:int}/name", RenameProduct).WithName("RenameProduct").ProducesValidationProblem();
        api.MapPut("/products/{id:int}/pictures", SavePictures).WithName("SavePictures").ProducesValidationProblem();
    }

    private static async Task<Results<Ok<ProductView>, Conflict<ProductView>, NotFound>> RenameProduct(int id, ProductNameRequest request, TinContext db, CancellationToken stop)
    {
        if (await Find(db, id, stop) is not { } product)
            return TypedResults.NotFound();
        var name = NameOf(request.Name);
        if (name != product.Name && product.Revision != request.Revision)
            return TypedResults.Conflict(View(product));
        if (name != product.Name)
            (product.Name, product.Revision) = (name, product.Revision + 1);
        await db.SaveChangesAsync(stop);
        return TypedResults.Ok(View(product));
    }

    private static async Task<Results<Ok<ProductView>, Conflict<ProductView>, NotFound>> SavePictures(int id, PicturesRequest request, TinContext db, CancellationToken stop)
    {
        if (await Find(db, id, stop) is not { } product)
            return TypedResults.NotFound();
        if (product.Pictures.OrderBy(p => p.Order).Select(p => p.Description).SequenceEqual(request.Pictures))
            return TypedResults.Ok(View(product));
        if (product.PicturesRevision != request.Revision)
            return TypedResults.Conflict(View(product));
        SetPictures(product, request.Pictures);
        product.PicturesRevision++;
        await db.SaveChangesAsync(stop);
        return TypedResults.Ok(View(product));
    }

    private static Task<ProductRow?> Find(TinContext db, int id, CancellationToken stop) =>
        db.Products.Include(p => p.Pictures).Include(p => p.Listings).FirstOrDefaultAsync(p => p.Id == id, stop);

    private static string NameOf(string given) =>
        given.Trim() is { Length: > 0 and <= Bounds.NameLength } name ? name : throw new FormatProblems([new("name", $"A product needs a name of at most {Bounds.NameLength} characters.")]);

    private static void SetPictures(ProductRow product, IReadOnlyList<string> pictures)
    {
        product.Pictures.Clear();
        product.Pictures.AddRange(pictures.Select((d, i) => new PictureRow { Description = d, Order = i }));
    }

    private static ProductView View(ProductRow product) => new(
        product.Id, product.Name, product.Facts, [.. product.Pictures.OrderBy(p => p.Order).Select(p => p.Description)],
        product.Listings.ToDictionary(l => l.PlatformId, l => l.Id), product.Revision, product.PicturesRevision);
}
