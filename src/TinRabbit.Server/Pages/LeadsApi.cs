using System.ComponentModel.DataAnnotations;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using TinRabbit.Core;
using TinRabbit.Core.Matching;
using TinRabbit.Core.Measures;
using TinRabbit.Core.Pages;
using TinRabbit.Core.Platforms;
using TinRabbit.Market;
using TinRabbit.Server.Storage;

namespace TinRabbit.Server.Pages;

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
public sealed record LeadsView(IReadOnlyList<LeadView> Leads, IReadOnlyList<ClashView> Clashes, IReadOnlyList<UntargetedTerm> Untargeted);

/// <summary>A page's new lead.</summary>
public sealed record NewLeadRequest([Term] string Text);

internal static class LeadsApi
{
    private const int Looked = 400;
    private const int Shown = 60;

    public static void MapLeads(this IEndpointRouteBuilder app)
    {
        app.MapGet("/api/leads", GetLeads).WithName("GetLeads").WithTags("Pages");
        app.MapPut("/api/pages/{id:int}/lead", SetPageLead).WithName("SetPageLead").WithTags("Pages").ProducesValidationProblem();
    }

    private static async Task<Ok<LeadsView>> GetLeads(
        TinContext db,
        PreparedPicksCache ready,
        Shelves shelves,
        IMarket market,
        CancellationToken stop
    )
    {
        var site = await db.Site(stop);
        var webMarket = market.Places.FirstOrDefault(p => p.PlatformId == MarketPlace.Web && p.Country == site.Country)?.Id;
        var pages = await db.AllPages(stop);
        var rules = await PageTree.Platform(db, stop);
        var holdings = webMarket is null ? [] : await Holdings(db, pages, rules, webMarket, stop);
        return TypedResults.Ok(
            new LeadsView(
                await Leads(db, ready, pages, rules, market, webMarket, stop),
                await Competing(db, pages, rules, holdings, webMarket, stop),
                webMarket is null ? [] : await Untargeted(db, shelves, pages, holdings, webMarket, stop)
            )
        );
    }

    // Gives a page another lead; it becomes a pick where it is none yet.
    private static async Task<Results<Ok<Changed>, NotFound>> SetPageLead(
        int id,
        NewLeadRequest request,
        TinContext db,
        CancellationToken stop
    )
    {
        var page = await db.Pages.Include(p => p.Listing).ThenInclude(l => l.Product).FirstOrDefaultAsync(p => p.Id == id, stop);
        var key = Core.Words.Tokens.Key(request.Text);
        if (page is null || key.Length == 0)
            return TypedResults.NotFound();
        var picks = await db.Picks.Where(p => p.ProductId == page.Listing.ProductId).ToListAsync(stop);
        if (picks.FirstOrDefault(p => p.Key == key) is { } pick)
            pick.Home = pick.Home is Home.Avoid or Home.Later ? Home.Title : pick.Home;
        else
            db.Picks.Add(
                new()
                {
                    ProductId = page.Listing.ProductId,
                    Text = request.Text.Trim(),
                    Key = key,
                    Fit = Fit.Core,
                    Home = Home.Title,
                    Order = picks.Count + 1,
                }
            );
        page.Listing.LeadKey = key;
        await db.SaveChangesAsync(stop);
        return TypedResults.Ok(new Changed(Messages.SetLead(request.Text.Trim(), page.Listing.Product.Name)));
    }

    private static async Task<IReadOnlyList<LeadView>> Leads(
        TinContext db,
        PreparedPicksCache ready,
        IReadOnlyList<PageRow> pages,
        Platform rules,
        IMarket market,
        string? webMarket,
        CancellationToken stop
    )
    {
        var byListing = pages.ToDictionary(p => p.ListingId);
        var listings = await db
            .Listings.AsNoTracking()
            .Include(l => l.Platform)
            .Include(l => l.Product)
            .OrderBy(l => l.ProductId)
            .ThenBy(l => l.Id)
            .Take(Bounds.Pages)
            .ToListAsync(stop);
        var leads = new List<LeadView>();
        foreach (var listing in listings)
        {
            stop.ThrowIfCancellationRequested();
            var page = byListing.GetValueOrDefault(listing.Id);
            var place =
                page is not null || listing.PlatformId == rules.Id
                    ? webMarket
                    : market.Places.FirstOrDefault(p => p.PlatformId == listing.PlatformId)?.Id;
            if (place is null)
                continue;
            var picks = await ready.Get(db, listing.ProductId, place, listing.Platform.Profile, stop);
            var at = listing.LeadKey is { } key ? picks.Keys.ToList().IndexOf(key) : -1;
            double? grip = null;
            if (at >= 0)
            {
                var copy = await db.WithAltTexts(picks.Platform, listing.ProductId, Listings.CopyOf(listing.Copy, picks.Platform), stop);
                grip = 100 * Weigher.Weigh(picks.Platform, copy, [picks.Wanted[at]], stop).Terms[0].Grip;
            }

            leads.Add(
                new(
                    listing.Id,
                    listing.ProductId,
                    page?.Id,
                    page?.Kind,
                    page?.NameOf(rules) ?? listing.Product.Name,
                    picks.Platform.Name,
                    place,
                    at < 0 ? null : picks.Wanted[at].Text,
                    grip,
                    at < 0 ? null : (long?)picks.Wanted[at].Volume
                )
            );
        }

        return leads;
    }

    // Every page against every pick of every page.
    private static async Task<List<PageHolding>> Holdings(
        TinContext db,
        IReadOnlyList<PageRow> pages,
        Platform rules,
        string webMarket,
        CancellationToken stop
    )
    {
        var terms = new Dictionary<string, WantedTerm>(StringComparer.Ordinal);
        foreach (var product in pages.Select(p => p.Listing.ProductId).Distinct())
        foreach (var pick in await db.WantedOf(product, webMarket, stop))
            terms.TryAdd(pick.Key, pick.Term);
        var (keys, wanted) = (terms.Keys.ToArray(), terms.Values.ToArray());
        var prepared = TermSet.Prepare(rules, [.. wanted.Select(w => w.Text)]);
        var holdings = new List<PageHolding>();
        foreach (var page in pages.Where(p => p.IsPublished))
        {
            var copy = await db.WithAltTexts(rules, page.Listing.ProductId, Listings.CopyOf(page.Listing.Copy, rules), stop);
            var weighed = Weigher.Weigh(prepared, copy, wanted, stop).Terms;
            holdings.Add(
                new(
                    page.Id,
                    page.Kind,
                    page.Listing.LeadKey,
                    [.. weighed.Select((w, i) => new HeldTerm(keys[i], wanted[i].Text, wanted[i].Volume, w.Grip)).Where(h => h.Grip > 0)]
                )
            );
        }

        return holdings;
    }

    private static async Task<IReadOnlyList<ClashView>> Competing(
        TinContext db,
        IReadOnlyList<PageRow> pages,
        Platform rules,
        IReadOnlyList<PageHolding> holdings,
        string? webMarket,
        CancellationToken stop
    )
    {
        var byId = pages.ToDictionary(p => p.Id);
        var held = holdings.ToDictionary(h => h.Id);
        double GripOf(int id, string key) => 100 * (held[id].Held.FirstOrDefault(h => h.Key == key)?.Grip ?? 0);
        var leads = pages.Select(p => p.Listing.LeadKey).OfType<string>().ToHashSet(StringComparer.Ordinal);
        var views = new List<ClashView>();
        foreach (var clash in Core.Pages.Clashes.Find(holdings).Take(Shown))
        {
            var others = new List<CompetingPage>();
            foreach (var id in clash.Others)
            {
                var free = (await db.WantedOf(byId[id].Listing.ProductId, webMarket!, stop))
                    .Where(p => p.Key != clash.Key && !leads.Contains(p.Key))
                    .Where(p => !holdings.Any(h => h.Id != id && h.Held.Any(t => t.Key == p.Key && t.Grip >= Core.Pages.Clashes.Strong)))
                    .OrderByDescending(p => p.Term.Worth())
                    .Select(p => p.Term)
                    .FirstOrDefault();
                others.Add(
                    new(
                        id,
                        byId[id].ListingId,
                        byId[id].NameOf(rules),
                        GripOf(id, clash.Key),
                        byId[id].Listing.LeadKey == clash.Key,
                        free?.Text,
                        free is null ? null : (long?)free.Volume
                    )
                );
            }

            views.Add(
                new(
                    clash.Key,
                    clash.Text,
                    clash.Volume,
                    clash.IsLead,
                    byId[clash.Keeper].NameOf(rules),
                    clash.Keeper,
                    GripOf(clash.Keeper, clash.Key),
                    others
                )
            );
        }

        return views;
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
        var products = (await db.Products.AsNoTracking().Where(p => !p.IsPage).ToListAsync(stop))
            .Where(p => p.Facts.What.Length > 0)
            .Select(p => p.Facts.Words)
            .ToList();
        var targeted = pages
            .Select(p => p.Listing.LeadKey)
            .OfType<string>()
            .Concat(holdings.SelectMany(h => h.Held.Where(t => t.Grip >= Core.Pages.Clashes.Strong).Select(t => t.Key)))
            .ToHashSet(StringComparer.Ordinal);
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
                .Where(t => t.Reading?.Volume > 0 && !targeted.Contains(t.Key))
                .Select(t => (Term: t, Kind: PageNeed.KindFor(t.Text, products)))
                .Where(t => t.Kind is not null)
                .OrderByDescending(t => t.Term.Reading!.Volume)
                .Take(Shown)
                .Select(t => new UntargetedTerm(
                    t.Term.Text,
                    t.Term.Reading!.Volume!.Value,
                    TermMeasures.Headroom(t.Term.Reading.Volume, t.Term.Reading.Competition, norm.Centre),
                    t.Kind!.Value
                )),
        ];
    }
}
