using TinRabbit.Server.Listings;
using TinRabbit.Server.Picks;
using TinRabbit.Server.Shelf;

namespace TinRabbit.Server.Features.Pages;

/// <summary>A page or a listing with its lead.</summary>
/// <param name="PageId">The page; null for a marketplace listing.</param>
/// <param name="Grip">How firmly it holds its lead, 0–100; null without a lead.</param>
/// <param name="Volume">Searches a month of its lead; null when unknown.</param>
public sealed record LeadView(
    int ListingId,
    int ProductId,
    int? PageId,
    PageKind? Kind,
    string Name,
    string PlatformName,
    string MarketId,
    string? Lead,
    double? Grip,
    long? Volume
);

/// <summary>Pages that compete for a term.</summary>
/// <param name="Keeper">The page that should keep it.</param>
/// <param name="Others">The others, each with the free term that it could have.</param>
public sealed record ClashView(
    string Key,
    string Text,
    double? Volume,
    bool IsLead,
    string Keeper,
    int KeeperId,
    double KeeperGrip,
    IReadOnlyList<CompetingPage> Others
);

/// <summary>A page that competes with another.</summary>
/// <param name="IsLead">Whether the term is its lead.</param>
/// <param name="Free">Its best pick that is the lead of no page and that no other page holds strongly; null where it has none.</param>
public sealed record CompetingPage(int PageId, int ListingId, string Name, double Grip, bool IsLead, string? Free, long? FreeVolume);

/// <summary>A term with demand that no page targets.</summary>
/// <param name="Kind">The kind of page that it needs.</param>
public sealed record UntargetedTerm(string Text, long Volume, double? Headroom, PageKind Kind);

/// <summary>The leads of the shop, where its pages compete, and what no page targets.</summary>
/// <param name="MoreClashes">How many more terms pages compete for than are told.</param>
public sealed record LeadsView(
    IReadOnlyList<LeadView> Leads,
    IReadOnlyList<ClashView> Clashes,
    int MoreClashes,
    IReadOnlyList<UntargetedTerm> Untargeted
);

/// <summary>A page's new lead.</summary>
public sealed record NewLeadRequest([Term] string Text);

internal static class LeadsApi
{
    private const int Looked = 400;
    private const int Shown = 60;

    public static void MapLeads(this IEndpointRouteBuilder app)
    {
        app.MapGet("/api/leads", GetLeads);
        app.MapPut("/api/pages/{id:int}/lead", SetPageLead).RetriesRaces();
    }

    private static async Task<LeadsView> GetLeads(TinContext db, Shelves shelves, IMarket market, CancellationToken stop)
    {
        var web = market.MarketOf(await db.Site(stop))?.Id;
        var (pages, rules) = (await db.AllPages(stop), await db.PageRules(stop));
        var wanted = await db.WantedByProduct(web, stop);
        var alts = (await db.Products.AsNoTracking().Include(p => p.Pictures).ToListAsync(stop)).ToDictionary(
            p => p.Id,
            p => p.PictureStates().Select(o => o.Alt).ToList()
        );
        var holdings = await Task.Run(() => Holdings(pages, rules, wanted, alts, stop), stop);
        var (clashes, more) = Competing(pages, rules, holdings, wanted);
        return new LeadsView(
            await Leads(db, pages, rules, market, web, wanted, alts, stop),
            clashes,
            more,
            web is null ? [] : await Untargeted(db, shelves, pages, holdings, web, stop)
        );
    }

    // Gives a page another lead; it becomes a pick where it is none yet.
    private static async Task<Changed> SetPageLead(int id, NewLeadRequest request, TinContext db, ChangeLog changes, CancellationToken stop)
    {
        var page = await db.Pages.Include(p => p.Listing).ThenInclude(l => l.Product).FirstOrDefaultAsync(p => p.Id == id, stop);
        var (text, key) = (request.Text.Trim(), Tokens.Key(request.Text));
        if (page is null || key.Length == 0)
            throw new NotThereException();
        var lead = new LeadState(page.ListingId, page.Listing.LeadKey, key);
        var pick = await PickLead(db, page.Listing.ProductId, text, key, stop);
        ListingEditor.SetLead(page.Listing, key);
        return await changes.Save(
            PageMessages.SetLead(text, page.NameOf(await db.PageRules(stop))),
            new(Screen.Pages, ListingId: page.ListingId, PageId: id),
            [lead, pick],
            stop
        );
    }

    private static async Task<ProductState> PickLead(TinContext db, int productId, string text, string key, CancellationToken stop)
    {
        var picks = await db.Picks.Where(p => p.ProductId == productId).ToListAsync(stop);
        var pick = picks.FirstOrDefault(p => p.Key == key);
        var before = new Dictionary<string, PickState?> { [key] = pick is null ? null : PickState.Of(pick) };
        if (pick is null)
            db.Picks.Add(
                new()
                {
                    ProductId = productId,
                    Text = text,
                    Key = key,
                    Fit = Fit.Core,
                    Home = Home.Title,
                    Order = picks.Select(p => p.Order).DefaultIfEmpty().Max() + 1,
                }
            );
        else if (pick.Home is Home.Avoid or Home.Later)
            pick.Home = Home.Title;
        return new(productId, null, before);
    }

    private static async Task<IReadOnlyList<LeadView>> Leads(
        TinContext db,
        IReadOnlyList<PageRow> pages,
        Platform rules,
        IMarket market,
        string? web,
        ILookup<int, (string Key, Home Home, WantedTerm Term)> webPicks,
        Dictionary<int, List<string>> alts,
        CancellationToken stop
    )
    {
        var byListing = pages.ToDictionary(p => p.ListingId);
        var platforms = (await db.Platforms.AsNoTracking().ToListAsync(stop)).ToDictionary(p => p.Id, p => p.Profile);
        var markets = platforms.Keys.ToDictionary(
            id => id,
            id => id == rules.Id ? web : market.Places.FirstOrDefault(p => p.PlatformId == id)?.Id
        );
        var picks = new Dictionary<string, ILookup<int, (string Key, Home Home, WantedTerm Term)>>(StringComparer.Ordinal);
        if (web is not null)
            picks[web] = webPicks;
        var listings = await db
            .Listings.AsNoTracking()
            .Include(l => l.Product)
            .OrderBy(l => l.ProductId)
            .ThenBy(l => l.Id)
            .ToListAsync(stop);
        var leads = new List<LeadView>(listings.Count);
        foreach (var listing in listings)
        {
            stop.ThrowIfCancellationRequested();
            if (markets.GetValueOrDefault(listing.PlatformId) is not { } place)
                continue;
            if (!picks.TryGetValue(place, out var wanted))
                picks[place] = wanted = await db.WantedByProduct(place, stop);
            var platform = platforms[listing.PlatformId];
            var lead = wanted[listing.ProductId].FirstOrDefault(w => w.Key == listing.LeadKey).Term;
            double? grip = lead is null
                ? null
                : 100
                    * Weigher
                        .Weigh(platform, Sites.WithAltTexts(platform, listing.Copy.On(platform), alts[listing.ProductId]), [lead], stop)
                        .Terms[0]
                        .Grip;
            var page = byListing.GetValueOrDefault(listing.Id);
            leads.Add(
                new(
                    listing.Id,
                    listing.ProductId,
                    page?.Id,
                    page?.Kind,
                    page?.NameOf(rules) ?? listing.Product.Name,
                    platform.Name,
                    place,
                    lead?.Text,
                    grip,
                    (long?)lead?.Volume
                )
            );
        }

        return leads;
    }

    // Every page against every pick of every page.
    private static List<PageHolding> Holdings(
        IReadOnlyList<PageRow> pages,
        Platform rules,
        ILookup<int, (string Key, Home Home, WantedTerm Term)> wantedOf,
        Dictionary<int, List<string>> alts,
        CancellationToken stop
    )
    {
        var terms = pages
            .Select(p => p.Listing.ProductId)
            .Distinct()
            .SelectMany(id => wantedOf[id])
            .DistinctBy(w => w.Key, StringComparer.Ordinal)
            .ToList();
        var wanted = terms.Select(t => t.Term).ToArray();
        var prepared = TermSet.Prepare(rules, [.. wanted.Select(w => w.Text)]);
        return
        [
            .. pages
                .Where(p => p.IsPublished)
                .AsParallel()
                .AsOrdered()
                .WithCancellation(stop)
                .Select(page => new PageHolding(
                    page.Id,
                    page.Kind,
                    page.Listing.LeadKey,
                    [
                        .. Weigher
                            .Weigh(
                                prepared,
                                Sites.WithAltTexts(rules, page.Listing.Copy.On(rules), alts[page.Listing.ProductId]),
                                wanted,
                                stop
                            )
                            .Terms.Select((w, i) => new HeldTerm(terms[i].Key, wanted[i].Text, wanted[i].Volume, w.Grip))
                            .Where(h => h.Grip > 0),
                    ]
                )),
        ];
    }

    private static (IReadOnlyList<ClashView> Shown, int More) Competing(
        IReadOnlyList<PageRow> pages,
        Platform rules,
        IReadOnlyList<PageHolding> holdings,
        ILookup<int, (string Key, Home Home, WantedTerm Term)> wanted
    )
    {
        var byId = pages.ToDictionary(p => p.Id);
        var held = holdings.ToDictionary(h => h.Id, h => h.Held.ToDictionary(t => t.Key, t => t.Grip, StringComparer.Ordinal));
        double GripOf(int id, string key) => 100 * held[id].GetValueOrDefault(key);
        var terms = new FreeTerms(holdings, pages.Select(p => p.Listing.LeadKey).OfType<string>());
        var all = Core.Pages.Clashes.Find(holdings);
        return (
            [
                .. all.Take(Shown)
                    .Select(clash => new ClashView(
                        clash.Key,
                        clash.Text,
                        clash.Volume,
                        clash.IsLead,
                        byId[clash.Keeper].NameOf(rules),
                        clash.Keeper,
                        GripOf(clash.Keeper, clash.Key),
                        [
                            .. clash.Others.Select(id =>
                            {
                                var free = FreeTerm(byId[id], clash.Key);
                                return new CompetingPage(
                                    id,
                                    byId[id].ListingId,
                                    byId[id].NameOf(rules),
                                    GripOf(id, clash.Key),
                                    byId[id].Listing.LeadKey == clash.Key,
                                    free?.Text,
                                    (long?)free?.Volume
                                );
                            }),
                        ]
                    )),
            ],
            Math.Max(0, all.Count - Shown)
        );

        // Its best pick that is no page's lead and that no other page holds strongly.
        WantedTerm? FreeTerm(PageRow page, string key) =>
            wanted[page.Listing.ProductId]
                .Where(w => w.Key != key && terms.IsFree(page.Id, w.Key))
                .OrderByDescending(w => w.Term.Worth())
                .Select(w => w.Term)
                .FirstOrDefault();
    }

    private static async Task<IReadOnlyList<UntargetedTerm>> Untargeted(
        TinContext db,
        Shelves shelves,
        IReadOnlyList<PageRow> pages,
        IReadOnlyList<PageHolding> holdings,
        string webMarket,
        CancellationToken stop
    )
    {
        var own = OwnWord.ByKey(await db.OwnWords(stop));
        var products = (await db.Products.AsNoTracking().Where(p => !p.IsPage).ToListAsync(stop))
            .Where(p => p.Facts.What.Length > 0)
            .Select(p => p.Facts.Words with { Own = own })
            .ToList();
        var targeted = new FreeTerms(holdings, pages.Select(p => p.Listing.LeadKey).OfType<string>());
        var found = await shelves.Query(
            db,
            webMarket,
            shelf => shelf.Search(new ShelfQuery(VolumeFrom: 1, By: ShelfOrder.Volume, Down: true, Take: Looked)).Ids,
            stop
        );
        var terms = await db.Terms.AsNoTracking().Include(t => t.Reading).Where(t => found.Contains(t.Id)).ToListAsync(stop);
        var norm = await shelves.Query(db, webMarket, s => s.Norm, stop);
        return
        [
            .. terms
                .Where(t => t.Reading?.Volume > 0 && !targeted.IsTargeted(t.Key))
                .Select(t => (Term: t, Kind: PageNeed.KindFor(t.Text, products)))
                .Where(t => t.Kind is not null)
                .OrderByDescending(t => t.Term.Reading!.Volume)
                .Take(Shown)
                .Select(t => new UntargetedTerm(
                    t.Term.Text,
                    t.Term.Reading!.Volume!.Value,
                    norm.HeadroomOf(t.Term.Reading.Volume, t.Term.Reading.Competition, t.Term.Reading.TitlesHolding),
                    t.Kind!.Value
                )),
        ];
    }
}
