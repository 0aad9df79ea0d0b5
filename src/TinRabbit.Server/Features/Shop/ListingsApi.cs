using TinRabbit.Core.Watching;
using TinRabbit.Server.Journal;
using TinRabbit.Server.Listings;

namespace TinRabbit.Server.Features.Shop;

/// <summary>What is known of a listing's last days in its market.</summary>
/// <param name="Views">How often it was seen; null where no day is known.</param>
/// <param name="Sales">How many were sold, or nights booked; null where no day is known.</param>
/// <param name="Known">How many of the days are known.</param>
/// <param name="Days">Of how many.</param>
public sealed record RecentFigures(long? Views, long? Sales, int Known, int Days);

/// <summary>A listing in the list of the shop.</summary>
/// <param name="IsPage">Whether it is a page of the web shop that sells no product.</param>
/// <param name="MarketId">The market of its platform in the country that was asked for; null where there is none.</param>
/// <param name="SavedAt">When its text was changed last.</param>
/// <param name="SentAt">When it was sent or published last; null where it never was.</param>
/// <param name="Changed">Whether it was changed since.</param>
/// <param name="ArchivedAt">When it was archived; null while it is worked on.</param>
/// <param name="Score">Its scores as far as they are known; null before they are worked out.</param>
/// <param name="IsFresh">Whether nothing has changed since the scores were worked out.</param>
/// <param name="Recent">Its last four weeks there; null where nothing is known.</param>
/// <param name="CheckedOn">The day of its last check there; null where there is none.</param>
public sealed record ListingLine(
    int Id,
    int ProductId,
    string Product,
    bool IsPage,
    string PlatformId,
    string Platform,
    string? MarketId,
    DateTime SavedAt,
    DateTime? SentAt,
    bool Changed,
    DateTime? ArchivedAt,
    WeighedListing? Score,
    bool IsFresh,
    RecentFigures? Recent,
    DateOnly? CheckedOn
);

/// <summary>All listings of the shop.</summary>
/// <param name="Country">The country whose markets they are weighed in.</param>
/// <param name="Countries">The countries that there are, by code and name.</param>
public sealed record ListingsView(string Country, IReadOnlyDictionary<string, string> Countries, IReadOnlyList<ListingLine> Listings);

/// <summary>Which country's markets to weigh the listings in.</summary>
public sealed record ScoresRequest([MaxLength(8)] string Country);

/// <summary>How far the weighing of all listings is.</summary>
/// <param name="Done">Listings weighed so far.</param>
/// <param name="All">Listings to weigh.</param>
/// <param name="Score">The score of one of them; null in the first line.</param>
public sealed record ScoreLine(int Done, int All, WeighedListing? Score);

/// <summary>Listings to archive, or to take back.</summary>
public sealed record ArchiveRequest([MaxLength(Bounds.Listings)] IReadOnlyList<int> Ids, bool IsArchived);

internal static class ListingsApi
{
    private const int RowsAtOnce = 500;
    private const int RecentDays = 28;

    public static void MapListings(this IEndpointRouteBuilder app)
    {
        var api = app.MapGroup("/api/listings");
        api.MapGet("/", GetListings);
        api.MapPost("/scores", WeighListings).DisableRequestTimeout();
        api.MapPost("/archive", ArchiveListings).RetriesRaces();
    }

    private static async Task<ListingsView> GetListings(
        string? country,
        TinContext db,
        IMarket market,
        CachedWeighings scores,
        CancellationToken stop
    )
    {
        var site = await db.Site(stop);
        var places = market.PlacesWith(site);
        var countries = places.DistinctBy(p => p.Country).ToDictionary(p => p.Country, p => p.CountryName);
        var chosen = country is not null && countries.ContainsKey(country) ? country : countries.Keys.FirstOrDefault() ?? "";
        var markets = market.MarketsIn(site, chosen);
        var names = await db.PlatformNames(stop);
        var sent = await LastSent(db, stop);
        var (recent, checks) = (await Recent(db, markets, market.Today.AddDays(-1), stop), await LastChecks(db, stop));
        var rows = await Rows(db).ToListAsync(stop);
        return new ListingsView(
            chosen,
            countries,
            [
                .. rows.Select(r =>
                    Line(r, markets, names, sent.TryGetValue(r.Id, out var at) ? at : null, scores) with
                    {
                        Recent = recent.GetValueOrDefault(r.Id),
                        CheckedOn =
                            markets.TryGetValue(r.PlatformId, out var marketId) && checks.TryGetValue((r.Id, marketId), out var day)
                                ? day
                                : null,
                    }
                ),
            ]
        );
    }

    private static async Task<Dictionary<int, RecentFigures>> Recent(
        TinContext db,
        IReadOnlyDictionary<string, string> markets,
        DateOnly last,
        CancellationToken stop
    )
    {
        var recent = new Dictionary<int, RecentFigures>();
        foreach (var (platformId, marketId) in markets)
        foreach (var series in await db.SeriesOfPlatform(platformId, marketId, last.AddDays(1 - RecentDays), stop))
            recent[series.ListingId] = new(
                series.SumOfKnown(DailyMeasure.Views, last, RecentDays),
                series.SumOfKnown(DailyMeasure.Sales, last, RecentDays),
                series.Days.Keys.Count(d => d <= last),
                RecentDays
            );
        return recent;
    }

    private static async Task<Dictionary<(int, string), DateOnly>> LastChecks(TinContext db, CancellationToken stop) =>
        await db
            .Checks.AsNoTracking()
            .Where(c => c.State == CheckState.Finished)
            .GroupBy(c => new { c.ListingId, c.MarketId })
            .Select(g => new
            {
                g.Key.ListingId,
                g.Key.MarketId,
                Day = g.Max(c => c.Day),
            })
            .ToDictionaryAsync(c => (c.ListingId, c.MarketId), c => c.Day, stop);

    private static Task<Dictionary<int, DateTime>> LastSent(TinContext db, CancellationToken stop) =>
        db
            .Sent.AsNoTracking()
            .GroupBy(s => s.ListingId)
            .Select(g => new { Id = g.Key, At = g.Max(s => s.At) })
            .ToDictionaryAsync(s => s.Id, s => s.At, stop);

    private static ListingLine Line(
        ListingHead row,
        IReadOnlyDictionary<string, string> markets,
        Dictionary<string, string> names,
        DateTime? sentAt,
        CachedWeighings scores
    )
    {
        var marketId = markets.GetValueOrDefault(row.PlatformId);
        var known = marketId is null ? null : scores.Find(row.Id, marketId, StateOf(scores, row));
        return new(
            row.Id,
            row.ProductId,
            row.Product,
            row.IsPage,
            row.PlatformId,
            names.GetValueOrDefault(row.PlatformId, row.PlatformId),
            marketId,
            row.SavedAt,
            sentAt,
            sentAt is not null && row.SavedAt > sentAt,
            row.ArchivedAt,
            known?.Score,
            known?.IsFresh ?? false,
            Recent: null,
            CheckedOn: null
        );
    }

    // What is not known, or not fresh, is worked out; a seller who leaves stops it, and what is done is kept.
    private static async Task<NdJson<ScoreLine>> WeighListings(
        ScoresRequest request,
        TinContext db,
        IMarket market,
        CachedWeighings scores,
        CancellationToken stop
    )
    {
        var todo = await Stale(request.Country, db, market, scores, stop);
        return new(Lines());

        async IAsyncEnumerable<ScoreLine> Lines()
        {
            yield return new(0, todo.Count, null);
            var done = 0;
            await foreach (var score in scores.Compute(todo, stop))
                yield return new(++done, todo.Count, score);
        }
    }

    private static async Task<List<(int Listing, string Market, string State)>> Stale(
        string country,
        TinContext db,
        IMarket market,
        CachedWeighings scores,
        CancellationToken stop
    )
    {
        var markets = market.MarketsIn(await db.Site(stop), country);
        return
        [
            .. (await Rows(db).ToListAsync(stop))
                .Where(l => l.ArchivedAt is null && markets.ContainsKey(l.PlatformId))
                // What sells comes first: a web shop may have thousands of pages.
                .OrderBy(l => l.IsPage)
                .Select(l => (Listing: l.Id, Market: markets[l.PlatformId], State: StateOf(scores, l)))
                .Where(l => scores.Find(l.Listing, l.Market, l.State) is not { IsFresh: true }),
        ];
    }

    private static async Task<Changed> ArchiveListings(ArchiveRequest request, TinContext db, ChangeLog changes, CancellationToken stop)
    {
        var listings = new List<ListingRow>();
        foreach (var ids in request.Ids.Distinct().Chunk(RowsAtOnce))
            listings.AddRange(
                // A page is a draft or deleted, never archived.
                await db
                    .Listings.Where(l => ids.Contains(l.Id) && l.ArchivedAt == null == request.IsArchived && !l.Product.IsPage)
                    .ToListAsync(stop)
            );
        if (listings.Count == 0)
            return new(null);
        var before = listings.Select(l => new ArchivedState(l.Id, l.ArchivedAt)).ToList();
        DateTime? now = request.IsArchived ? db.Now : null;
        foreach (var listing in listings)
            listing.ArchivedAt = now;
        return await changes.Save(ShopMessages.Archived(listings.Count, !request.IsArchived), new(Screen.Listings), [.. before], stop);
    }

    private sealed record ListingHead(
        int Id,
        int ProductId,
        string Product,
        bool IsPage,
        string PlatformId,
        int Revision,
        string? LeadKey,
        int Dismissed,
        int LastDismissed,
        DateTime SavedAt,
        DateTime? ArchivedAt
    );

    // The number of dismissed findings and the last of them tell them apart: a new one has a higher number than any before.
    private static string StateOf(CachedWeighings scores, ListingHead l) =>
        scores.StateOf(l.Revision, l.LeadKey, $"{l.Dismissed} {l.LastDismissed}", l.PlatformId == Sites.PlatformId);

    // Without their texts: a shop may have thousands.
    private static IQueryable<ListingHead> Rows(TinContext db) =>
        db
            .Listings.AsNoTracking()
            .Where(l => !l.Product.IsIdea)
            .OrderBy(l => l.ProductId)
            .ThenBy(l => l.Id)
            .Select(l => new ListingHead(
                l.Id,
                l.ProductId,
                l.Product.Name,
                l.Product.IsPage,
                l.PlatformId,
                l.Revision,
                l.LeadKey,
                db.Set<AsideRow>().Count(a => a.ListingId == l.Id),
                db.Set<AsideRow>().Where(a => a.ListingId == l.Id).Max(a => (int?)a.Id) ?? 0,
                l.SavedAt,
                l.ArchivedAt
            ));
}
