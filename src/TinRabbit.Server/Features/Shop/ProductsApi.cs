using TinRabbit.Server.Listings;
using TinRabbit.Server.Picks;
using TinRabbit.Server.Pictures;

namespace TinRabbit.Server.Features.Shop;

/// <summary>A new product.</summary>
/// <param name="Pictures">The alt text of each picture.</param>
/// <param name="Platforms">Where it is listed; null for every platform.</param>
/// <param name="Picks">Its first picks, the one that is to be its lead first.</param>
/// <param name="IsIdea">Whether it is only a list of picks so far.</param>
public sealed record ProductRequest(
    string Name,
    Facts? Facts,
    [MaxLength(Bounds.Pictures), EachMaxLength(Bounds.NoteLength)] IReadOnlyList<string>? Pictures,
    [MaxLength(Bounds.Facts), EachMaxLength(Bounds.NameLength)] IReadOnlyList<string>? Platforms = null,
    [Term, MaxLength(Bounds.TermsAtOnce)] IReadOnlyList<string>? Picks = null,
    bool IsIdea = false
);

/// <summary>What a list of picks becomes.</summary>
/// <param name="Name">The product's name.</param>
public sealed record BecomeRequest(string Name);

/// <summary>A new name for a product.</summary>
/// <param name="Revision">The <see cref="ProductView.Revision"/> that it was made from.</param>
public sealed record ProductNameRequest(string Name, int Revision);

/// <summary>New alt texts for a product, all of them.</summary>
/// <param name="Revision">The <see cref="ProductView.PicturesRevision"/> that they were made from.</param>
public sealed record PicturesRequest(
    [MaxLength(Bounds.Pictures), EachMaxLength(Bounds.NoteLength)] IReadOnlyList<string> Pictures,
    int Revision
);

internal static class ProductsApi
{
    private static readonly TimeSpan OneTyping = TimeSpan.FromMinutes(2);

    public static void MapProducts(this IEndpointRouteBuilder app)
    {
        var api = app.MapGroup("/api");
        api.MapPost("/products", AddProduct);
        api.MapPost("/products/{id:int}/listings/{platformId}", AddListing).RetriesRaces();
        api.MapDelete("/products/{id:int}", DeleteProduct).RetriesRaces();
        api.MapPost("/products/{id:int}/duplicate", DuplicateProduct).RetriesRaces();
        api.MapDelete("/listings/{id:int}", DeleteListing).RetriesRaces();
        api.MapPut("/products/{id:int}/name", RenameProduct).RetriesRaces();
        api.MapPost("/products/{id:int}/become", MakeProduct).RetriesRaces();
        api.MapPut("/products/{id:int}/pictures", SavePictures).RetriesRaces();
    }

    private static async Task<ProductView> AddProduct(ProductRequest request, TinContext db, ChangeLog changes, CancellationToken stop)
    {
        var product = new ProductRow
        {
            Name = NewName.Check(request.Name),
            Facts = request.Facts ?? new(),
            ShopId = await db.Shops.OrderBy(s => s.Id).Select(s => s.Id).FirstAsync(stop),
            IsIdea = request.IsIdea,
        };
        if (request.Pictures is { Count: > 0 } pictures)
            product.SetAltTexts(pictures);
        var platforms = await db.Platforms.Select(p => p.Id).ToListAsync(stop);
        if (request.Platforms?.FirstOrDefault(p => !platforms.Contains(p)) is { } unknown)
            throw new InvalidInputException([new("platforms", $"There is no platform “{unknown}”.")]);
        foreach (var platform in request.Platforms ?? platforms)
            ListingEditor.Add(product, platform, db.Now);
        db.Products.Add(product);
        var facts = await db.FactsOf(product.Facts, stop);
        var picks = (request.Picks ?? []).Select(t => t.Trim()).DistinctBy(Tokens.Key).ToList();
        db.Picks.AddRange(
            picks.Select(
                (text, i) =>
                    new PickRow
                    {
                        Product = product,
                        Key = Tokens.Key(text),
                        Text = text,
                        Source = "idea",
                        Fit = FitByFacts.Of(text, facts),
                        Order = i + 1,
                    }
            )
        );
        if (picks is [var lead, ..])
            foreach (var listing in product.Listings)
                ListingEditor.SetLead(listing, Tokens.Key(lead));
        await db.SaveChangesAsync(stop);
        await changes.Save(ShopMessages.AddedProduct(product.Name), new(Screen.Listings), [new RemoveProducts([product.Id])], stop);
        return View(product);
    }

    private static async Task<ProductView> AddListing(
        int id,
        string platformId,
        int? from,
        TinContext db,
        ChangeLog changes,
        CancellationToken stop
    )
    {
        var product = await Find(db, id, stop).OrNotThere();
        var row = await db.Platforms.FindAsync([platformId], stop).OrNotThere();
        if (product.Listings.Any(l => l.PlatformId == platformId))
            return View(product);
        var other = from is { } source ? await db.FindListing(source, stop) : null;
        var listing = AddConverted(product, row.Profile, other?.ProductId == id ? other : null, db.Now);
        await db.SaveChangesAsync(stop);
        var what = ShopMessages.AddedListing(product.Name, row.Profile.Name);
        await changes.Save(what, new(Screen.Write, id, listing.Id), [new RemoveListings([listing.Id])], stop);
        return View(product);
    }

    // With the text of another listing of the product, where there is one.
    private static ListingRow AddConverted(ProductRow product, Platform platform, ListingRow? other, DateTime now) =>
        other?.Platform.Profile is { } its
            ? ListingEditor.Add(product, platform.Id, now, TextConversion.ConvertTo(platform, its, other.Copy.On(its)), other.LeadKey)
            : ListingEditor.Add(product, platform.Id, now);

    private static async Task<Changed> DeleteProduct(int id, TinContext db, ChangeLog changes, CancellationToken stop)
    {
        var product = await db.Products.FindAsync([id], stop).OrNotThere();
        return await changes.Save(
            ChangeMessages.Deleted("product", product.Name),
            new(Screen.Listings),
            [changes.MarkDeleted(await db.OfProducts([product.Id], stop), new RemoveProducts([product.Id]))],
            stop
        );
    }

    private static async Task<ProductView> DuplicateProduct(
        int id,
        NewName request,
        TinContext db,
        ChangeLog changes,
        CancellationToken stop
    )
    {
        var product = await Find(db, id, stop).OrNotThere();
        var picks = await db.Picks.AsNoTracking().Where(p => p.ProductId == id).ToListAsync(stop);
        var copy = CopyOf(product, NewName.Check(request.Name), db.Now);
        db.Products.Add(copy);
        db.Picks.AddRange(picks.Select(p => p.CopyFor(copy)));
        await db.SaveChangesAsync(stop);
        await changes.Save(ChangeMessages.Duplicated("product", product.Name), new(Screen.Listings), [new RemoveProducts([copy.Id])], stop);
        return View(copy);
    }

    private static ProductRow CopyOf(ProductRow product, string name, DateTime now)
    {
        var copy = new ProductRow
        {
            Name = name,
            Facts = product.Facts,
            ShopId = product.ShopId,
        };
        copy.SetPictures(product.PictureStates());
        foreach (var listing in product.Listings)
            ListingEditor.Add(copy, listing.PlatformId, now, listing.Copy, listing.LeadKey);
        return copy;
    }

    private static async Task<Changed> DeleteListing(int id, TinContext db, ChangeLog changes, CancellationToken stop)
    {
        var listing = await db.FindListing(id, stop).OrNotThere();
        return await changes.Save(
            ShopMessages.DeletedListing(listing.Product.Name, listing.Platform.Profile.Name),
            new(Screen.Write, listing.ProductId, id),
            [changes.MarkDeleted(await db.OfListings([id], stop), new RemoveListings([id]))],
            stop
        );
    }

    private static async Task<Changed> MakeProduct(int id, BecomeRequest request, TinContext db, ChangeLog changes, CancellationToken stop)
    {
        var product = await db.Products.FirstOrDefaultAsync(p => p.Id == id && p.IsIdea, stop).OrNotThere();
        var (before, name) = (new IdeaState(id, true, product.Name), NewName.Check(request.Name));
        product.IsIdea = false;
        if (name != product.Name)
            product.Rename(name);
        return await changes.Save(ShopMessages.MadeProduct(name), new(Screen.Listings, id), [before], stop);
    }

    private static async Task<Results<Ok<ProductView>, Conflict<ProductView>>> RenameProduct(
        int id,
        ProductNameRequest request,
        TinContext db,
        ChangeLog changes,
        CancellationToken stop
    )
    {
        var product = await Find(db, id, stop).OrNotThere();
        var name = NewName.Check(request.Name);
        if (Versioned.Apply(product.Revision, request.Revision, name == product.Name, Rename) is SaveResult.Conflict)
            return TypedResults.Conflict(View(product));
        await db.SaveChangesAsync(stop);
        return TypedResults.Ok(View(product));

        void Rename()
        {
            changes.Note(ChangeMessages.Renamed("product", product.Name, name), new(Screen.Listings, id), RenameRow.Of(product, id));
            product.Rename(name);
        }
    }

    private static async Task<Results<Ok<ProductView>, Conflict<ProductView>>> SavePictures(
        int id,
        PicturesRequest request,
        TinContext db,
        ChangeLog changes,
        CancellationToken stop
    )
    {
        var product = await Find(db, id, stop).OrNotThere();
        var before = product.PictureStates();
        var result = Versioned.Apply(
            product.PicturesRevision,
            request.Revision,
            product.Pictures.OrderBy(p => p.Order).Select(p => p.Description).SequenceEqual(request.Pictures),
            () => product.SetAltTexts(request.Pictures)
        );
        if (result is SaveResult.Conflict)
            return TypedResults.Conflict(View(product));
        if (result is SaveResult.Saved)
            await NoteAltTexts(db, changes, product, before, stop);
        await db.SaveChangesAsync(stop);
        return TypedResults.Ok(View(product));
    }

    // What is typed without a pause is one change: each save of it goes on from the one before.
    private static async Task NoteAltTexts(
        TinContext db,
        ChangeLog changes,
        ProductRow product,
        IReadOnlyList<OnePicture> before,
        CancellationToken stop
    )
    {
        var (now, after, what) = (db.Now, product.PictureStates(), ShopMessages.ChangedAltTexts(product.Name));
        var last = await db.Changes.Where(c => c.ProductId == product.Id).OrderByDescending(c => c.Id).FirstOrDefaultAsync(stop);
        if (
            last is { UndoneAt: null, Steps: [PictureState step] }
            && last.What == what
            && now - last.At < OneTyping
            && step.After.SequenceEqual(before)
        )
            (last.Steps, last.At) = ([step with { After = after }], now);
        else
            changes.Note(what, new(Screen.Write, product.Id), new PictureState(product.Id, before, after));
    }

    private static Task<ProductRow?> Find(TinContext db, int id, CancellationToken stop) =>
        db.Products.Include(p => p.Pictures).Include(p => p.Listings).FirstOrDefaultAsync(p => p.Id == id, stop);

    private static ProductView View(ProductRow product) => View(product, product.Listings.ToDictionary(l => l.PlatformId, l => l.Id));

    /// <summary>A product with its listings by platform.</summary>
    internal static ProductView View(ProductRow product, IReadOnlyDictionary<string, int> listings) =>
        new(
            product.Id,
            product.Name,
            product.Facts,
            [.. product.Pictures.OrderBy(p => p.Order).Select(p => p.Description)],
            [.. product.PictureStates().Index().Where(p => p.Item.IsLocked).Select(p => p.Index)],
            listings,
            product.Revision,
            product.PicturesRevision,
            product.IsPage,
            product.IsIdea
        );
}
