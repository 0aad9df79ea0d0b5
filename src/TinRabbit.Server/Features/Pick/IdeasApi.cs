using TinRabbit.Server.Listings;
using TinRabbit.Server.Picks;
using TinRabbit.Server.Shelf;

namespace TinRabbit.Server.Features.Pick;

/// <summary>A product that the shop could make.</summary>
/// <param name="Text">What it would be.</param>
/// <param name="Volume">Searches/mo of its terms; null where none is known.</param>
/// <param name="Headroom">Their mean headroom; null where none is known.</param>
/// <param name="Why">The reason, as a sentence with its figures.</param>
public sealed record IdeaView(string Text, double? Volume, double? Headroom, string Why, IReadOnlyList<IdeaTerm> Terms);

/// <summary>A term of an idea.</summary>
/// <param name="Product">The product of the pick.</param>
public sealed record IdeaTerm(string Text, string Product, double? Volume, double? Headroom);

internal static class IdeasApi
{
    public static void MapIdeas(this IEndpointRouteBuilder app) => app.MapGet("/api/ideas/{marketId}", GetIdeas);

    private static async Task<List<IdeaView>> GetIdeas(
        string marketId,
        TinContext db,
        IMarket market,
        Shelves shelves,
        CancellationToken stop
    )
    {
        var place = market.Places.FirstOrDefault(p => p.Id == marketId) ?? throw new NotThereException();
        return await Load(place, db, shelves, stop);
    }

    private static async Task<List<IdeaView>> Load(MarketPlace place, TinContext db, Shelves shelves, CancellationToken stop)
    {
        var products = await db.Products.AsNoTracking().ToListAsync(stop);
        var listings = await db
            .Listings.AsNoTracking()
            .Where(l => l.PlatformId == place.PlatformId && !l.Product.IsIdea)
            .Select(l => new ListingCopy(l.Copy, l.Platform.Profile))
            .ToListAsync(stop);
        var names = products.ToDictionary(p => p.Id, p => p.Name);
        List<UnservedTerm> picks =
        [
            .. (await shelves.PicksOf(db, null, place.Id, stop))
                .Where(p => p.Pick.Home != Home.Avoid && p.Pick.Language.Length == 0 && names.ContainsKey(p.Pick.ProductId))
                .Select(p => new UnservedTerm(
                    new(p.Pick.Text, p.Numbers.Volume, p.Numbers.Competition, p.Numbers.Headroom, p.Pick.Fit)
                    {
                        VolumeBelow = p.Numbers.VolumeBelow,
                    },
                    names[p.Pick.ProductId]
                )),
        ];
        var served = Served(listings, [.. picks.Select(p => p.Term)], stop);
        return
        [
            .. Ideas
                .Find(picks.Where(p => !served.Contains(Family.Key(p.Term.Text)) && !products.Exists(o => Is(o, p.Term.Text))))
                .Select(i => new IdeaView(
                    i.Text,
                    i.Volume,
                    i.Headroom,
                    PickMessages.Idea(i.Terms.Count, i.Volume, i.Headroom, listings.Count),
                    [.. i.Terms.Select(t => new IdeaTerm(t.Term.Text, t.Product, t.Term.Volume, t.Term.Headroom))]
                )),
        ];
    }

    // A listing that holds one form of a term serves all of its family.
    private static HashSet<string> Served(List<ListingCopy> listings, WantedTerm[] wanted, CancellationToken stop)
    {
        var served = new HashSet<string>();
        if (listings.Count == 0 || wanted.Length == 0)
            return served;
        var prepared = TermSet.Prepare(listings[0].Profile, [.. wanted.Select(t => t.Text)]);
        foreach (var listing in listings)
            served.UnionWith(
                Weigher
                    .Weigh(prepared, listing.Copy.On(prepared.Platform), wanted, stop)
                    .Terms.Where(t => t.Grade != Grade.Missing)
                    .Select(t => Family.Key(t.Term.Text))
            );
        return served;
    }

    private sealed record ListingCopy(ListingText Copy, Core.Platforms.Platform Profile);

    // Whether a product is all that the term says: then it needs better copy, not another product.
    private static bool Is(ProductRow product, string term)
    {
        var facts = product.Facts.Words;
        var words = facts.ByFacet.Values.SelectMany(v => v).Append(facts.What).SelectMany(f => Family.Key(f).Split(' ')).ToHashSet();
        return Family.Key(term).Split(' ').All(words.Contains);
    }
}
