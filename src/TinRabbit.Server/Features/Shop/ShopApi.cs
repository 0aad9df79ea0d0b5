using TinRabbit.Server.Hosting;
using TinRabbit.Server.Listings;

namespace TinRabbit.Server.Features.Shop;

/// <summary>The shop as the head of every screen shows it.</summary>
/// <param name="Currency">ISO 4217 code of the prices on the seller's own platforms.</param>
/// <param name="Countries">The countries that the seller sells in, the home country first; none until the seller has said.</param>
/// <param name="Language">BCP 47 tag of the language that the seller writes in; empty until the seller has said.</param>
/// <param name="IsConnected">Whether a source of numbers is connected.</param>
/// <param name="OwnWords">Words whose claims the seller has corrected or added.</param>
public sealed record ShopView(
    string Name,
    string Currency,
    IReadOnlyList<string> Countries,
    string Language,
    bool IsConnected,
    IReadOnlyList<ProductView> Products,
    IReadOnlyList<MarketView> Markets,
    IReadOnlyList<OwnWord> OwnWords
);

/// <summary>A product and its listings, by platform.</summary>
/// <param name="LockedPictures">The places of the pictures whose alt texts are locked, from 0.</param>
/// <param name="Revision">Counts the changes to name and facts.</param>
/// <param name="PicturesRevision">Counts the changes to the alt texts.</param>
/// <param name="IsPage">Whether it is only what a category or content page is about: nothing is sold.</param>
/// <param name="IsIdea">Whether it is only a list of picks that may become a product.</param>
public sealed record ProductView(
    int Id,
    string Name,
    Facts Facts,
    IReadOnlyList<string> Pictures,
    IReadOnlyList<int> LockedPictures,
    IReadOnlyDictionary<string, int> Listings,
    int Revision,
    int PicturesRevision,
    bool IsPage,
    bool IsIdea
);

/// <summary>A platform in one country.</summary>
/// <param name="Currency">ISO 4217 code of its prices.</param>
/// <param name="Simulated">Whether its numbers are sample data.</param>
/// <param name="SearchAddress">The address of its search, with <c>{term}</c> where the search goes; null where it is not known.</param>
/// <param name="Own">Whether no market is connected to the platform: it is the seller's own, or the shop has no source of numbers.</param>
public sealed record MarketView(
    string Id,
    string PlatformId,
    string PlatformName,
    string About,
    string Country,
    string CountryName,
    string Currency,
    bool Simulated,
    bool Own,
    string? SearchAddress
);

/// <summary>What is to be changed of the shop's settings; null leaves it, so that two windows do not undo each other.</summary>
/// <param name="Currency">ISO 4217 code.</param>
/// <param name="Countries">ISO 3166-1 alpha-2, lower case, the home country first.</param>
/// <param name="Language">BCP 47 tag.</param>
public sealed record ShopRequest(
    [MaxLength(Bounds.NameLength)] string? Name = null,
    [MaxLength(3)] string? Currency = null,
    [MaxLength(Bounds.Countries), EachMaxLength(2)] IReadOnlyList<string>? Countries = null,
    [MaxLength(35)] string? Language = null
);

/// <summary>What a word claims of every product of the shop.</summary>
/// <param name="Word">One word, or a few.</param>
/// <param name="Facet">What it claims; null where it claims nothing.</param>
/// <param name="Forget">Whether the vocabulary decides again.</param>
public sealed record OwnWordRequest([MaxLength(Bounds.NameLength)] string Word, Facet? Facet, bool Forget = false);

internal static class ShopApi
{
    public static void MapShop(this IEndpointRouteBuilder app)
    {
        var api = app.MapGroup("/api");
        api.MapGet("/shop", GetShop);
        api.MapGet("/countries", GetCountryChoices);
        api.MapPut("/shop", SaveShop).RetriesRaces();
        api.MapPost("/shop/words", SetOwnWord).RetriesRaces();
    }

    private static async Task<ShopView> GetShop(TinContext db, IMarket market, CancellationToken stop)
    {
        var shop = await db.Shops.AsNoTracking().OrderBy(s => s.Id).FirstAsync(stop);
        // The listings' texts stay where they are: a shop may have many.
        var heads = await db.Listings.AsNoTracking().Select(l => new ListingHead(l.ProductId, l.PlatformId, l.Id)).ToListAsync(stop);
        var listings = heads.ToLookup(l => l.ProductId);
        var products = await db.Products.AsNoTracking().Include(p => p.Pictures).OrderBy(p => p.Id).ToListAsync(stop);
        var platforms = await db.Platforms.AsNoTracking().ToDictionaryAsync(p => p.Id, stop);
        var places = market.PlacesWith(await db.Site(stop)).Where(m => platforms.ContainsKey(m.PlatformId));
        return new ShopView(
            shop.Name,
            shop.Currency,
            shop.Countries,
            shop.Language,
            market.IsConnected,
            [.. products.Select(p => ProductsApi.View(p, listings[p.Id].ToDictionary(l => l.PlatformId, l => l.Id)))],
            [.. places.Select(m => View(m, platforms[m.PlatformId], shop.Currency, market))],
            shop.OwnWords
        );
    }

    private static IEnumerable<Country> GetCountryChoices() => Countries.All.Values;

    private static MarketView View(MarketPlace place, PlatformRow platform, string currency, IMarket market) =>
        new(
            place.Id,
            platform.Id,
            platform.Profile.Name,
            platform.Profile.About,
            place.Country,
            place.CountryName,
            platform.Like is not null && market.IsConnected ? currency : place.Currency,
            market.IsSimulated,
            platform.Like is not null || !market.IsConnected,
            platform.Profile.SearchAddress
        );

    private sealed record ListingHead(int ProductId, string PlatformId, int Id);

    private static async Task<Changed> SaveShop(
        ShopRequest request,
        TinContext db,
        ChangeLog changes,
        MarketSetup markets,
        CancellationToken stop
    )
    {
        var shop = await db.Shops.OrderBy(s => s.Id).FirstAsync(stop);
        var before = ShopNames.Of(shop);
        var after = Read(request, before);
        if (before.IsSame(after))
            return new(null);
        after.ApplyTo(shop);
        var changed = await changes.Save(ShopMessages.ChangedShop, new(Screen.Settings), [before], stop);
        await markets.KnowPlaces(db, stop);
        return changed;
    }

    private static ShopNames Read(ShopRequest request, ShopNames before)
    {
        var problems = new List<Problem>();
        if (request.Currency is not (null or [>= 'A' and <= 'Z', >= 'A' and <= 'Z', >= 'A' and <= 'Z']))
            problems.Add(new("currency", "Enter a currency code of three capital letters, such as USD."));
        if (request.Countries?.FirstOrDefault(c => !Countries.All.ContainsKey(c)) is { } unknown)
            problems.Add(new("countries", $"There is no country “{unknown}”. Enter its code of two small letters, such as gb."));
        return problems.Count > 0
            ? throw new InvalidInputException(problems)
            : new(
                request.Name is { } name ? NewName.Check(name) : before.Name,
                request.Currency ?? before.Currency,
                request.Countries?.Distinct().ToList() ?? before.Countries,
                request.Language?.Trim() ?? before.Language
            );
    }

    private static async Task<Changed> SetOwnWord(OwnWordRequest request, TinContext db, ChangeLog changes, CancellationToken stop)
    {
        var word = request.Word.Trim();
        if (FactWords.OwnKeyOf(word).Length == 0)
            throw new InvalidInputException([new("word", "Enter a word with at least one letter or digit.")]);
        var shop = await db.Shops.OrderBy(s => s.Id).FirstAsync(stop);
        var before = shop.OwnWords;
        var others = before.Where(w => FactWords.OwnKeyOf(w.Word) != FactWords.OwnKeyOf(word)).ToList();
        if (request.Forget && others.Count == before.Count)
            return new(null);
        if (!request.Forget && others.Count >= Bounds.OwnWords)
            throw new InvalidInputException([
                new("word", $"A shop has at most {Bounds.OwnWords:#,0} words of its own. Remove some in Settings."),
            ]);
        shop.OwnWords = request.Forget ? others : [.. others, new(word, request.Facet)];
        return await changes.Save(
            request.Forget ? ShopMessages.ForgotOwnWord(word) : ShopMessages.SetOwnWord(word, request.Facet),
            new(Screen.Settings),
            [new OwnWordsBefore(before)],
            stop
        );
    }
}
