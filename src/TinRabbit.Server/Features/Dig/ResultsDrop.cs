using TinRabbit.Server.Drops;
using TinRabbit.Server.Files.Html.Reading;
using TinRabbit.Server.Files.Tables;
using TinRabbit.Server.Journal;
using TinRabbit.Server.Listings;
using TinRabbit.Server.Markets;
using TinRabbit.Server.Picks;
using TinRabbit.Server.Recordings;
using TinRabbit.Server.Shelf;

namespace TinRabbit.Server.Features.Dig;

/// <summary>A page of search results: what a search found, how much, and where the shop's own listings are.</summary>
internal sealed class ResultsDrop(TinContext db, IMarket market, Shelves shelves) : IDropKind
{
    // Of the pages that are looked at together; what is added may change them.
    private readonly Dictionary<string, IReadOnlyList<OwnListings.Own>> _own = [];

    public string Id => "results";

    public string Name => "Search results";

    public double? Fits(DropContent content) =>
        content.Page is { Results.Count: > 0 } page ? (page.Kind == ReadKind.Results ? 0.9 : 0.4) : null;

    public async Task<DropShown> Look(DroppedThing thing, CancellationToken stop)
    {
        var page = thing.Content.Page!;
        var term = TermOf(thing);
        var ads = page.Results.Count(r => r.Sponsored);
        if (!_own.TryGetValue(thing.Market.PlatformId, out var own))
            _own[thing.Market.PlatformId] = own = await OwnListings.Load(db, thing.Market.PlatformId, stop);
        var mine = own.Select(o => (Own: o, Seen: term is null ? null : OwnListings.Observe([page], o, term, null)))
            .Where(o => o.Seen is { Found: true })
            .ToList();
        var facts = new List<DropFact>
        {
            new("Read", ads == 0 ? $"{page.Results.Count:#,0} listings" : $"{page.Results.Count:#,0} listings, {ads:#,0} of them ads"),
            new("Results in all", page.Total is { } total ? $"{total:#,0}" : "No data"),
        };
        if (page.Related.Count > 0)
            facts.Add(new("Related searches", $"{page.Related.Count:#,0}"));
        facts.AddRange(mine.Select(m => new DropFact("Yours", $"rank {m.Seen!.Rank}: {m.Own.Name}")));
        return new(
            term is null ? "A results page" : $"A results page for “{term}”",
            facts,
            ["", "Title", "Price"],
            [
                .. page
                    .Results.Take(DropShown.MostRows)
                    .Select(r => new DropRow(
                        [$"{r.Position}", r.Title, PriceText.Written(r.Price, r.Currency) ?? ""],
                        page.Unread.Any(u => u.StartsWith($"“{Start(r.Title)}", StringComparison.Ordinal)),
                        r.Sponsored ? "Ad"
                            : r.Mine || mine.Exists(m => OwnListings.Find([r], m.Own) is not null) ? "Yours"
                            : null
                    )),
            ],
            page.Results.Count,
            page.Unread,
            term is null ? "The page does not say what was searched for. Enter the term." : null,
            term,
            NeedsTerm: true,
            HasDay: true
        );
    }

    public async Task<IReadOnlyList<IUndoStep>> Add(IReadOnlyList<DroppedThing> things, CancellationToken stop)
    {
        var steps = new List<IUndoStep>();
        var added = new List<RecordingRow>();
        foreach (var thing in things)
            added.Add(
                db.Recordings.Add(
                    new()
                    {
                        MarketId = thing.Market.Id,
                        Kind = RecordingKind.Results,
                        Term = TermOf(thing)!,
                        Key = Tokens.Key(TermOf(thing)!),
                        Day = thing.Day,
                        Source = thing.Content.Source,
                        Page = WithPictures(thing),
                    }
                ).Entity
            );
        await db.SaveChangesAsync(stop);
        steps.Add(RemoveRows.Of<RecordingRow>(added.Select(r => r.Id)));
        foreach (var ofMarket in things.Zip(added, (t, r) => (t.Market, Row: r)).GroupBy(t => t.Market, t => t.Row))
        {
            steps.AddRange(await AddTotals(ofMarket.Key.Id, [.. ofMarket], stop));
            steps.AddRange(await AddChecks(ofMarket.Key, [.. ofMarket], stop));
        }

        return steps;
    }

    // How many results a search has is the competition of its term.
    private async Task<IReadOnlyList<IUndoStep>> AddTotals(string marketId, List<RecordingRow> rows, CancellationToken stop)
    {
        var found = rows.OrderByDescending(r => r.Day)
            .DistinctBy(r => r.Key)
            .Select(r => new Found(
                r.Term,
                r.Page.Total is { } total
                    ? new()
                    {
                        Competition = total,
                        Source = r.Source,
                        TakenAt = market.TimeOf(r.Day),
                    }
                    : null
            ))
            .ToList();
        var before = (await Shelves.TermsOf(db, marketId, [.. rows.Select(r => r.Key).Distinct()], stop)).ToDictionary(
            t => t.Key,
            t => t.Value.ReadingId
        );
        var terms = await shelves.Save(db, marketId, found, stop, keepsByHand: true);
        return RemoveReadings.Of(marketId, before, terms);
    }

    // What all pages of a search say together, of the listings that are on one of these, or that the term is picked or checked for.
    private async Task<IReadOnlyList<IUndoStep>> AddChecks(MarketPlace place, List<RecordingRow> rows, CancellationToken stop)
    {
        var marketId = place.Id;
        var steps = new List<IUndoStep>();
        var own = await OwnListings.Load(db, place.PlatformId, stop);
        var seen = new Dictionary<int, List<(ObservedRow Row, string Source)>>();
        foreach (var search in rows.GroupBy(r => (r.Key, r.Day)))
        {
            var pages = (
                await db
                    .Recordings.AsNoTracking()
                    .Where(r =>
                        r.MarketId == marketId && r.Kind == RecordingKind.Results && r.Key == search.Key.Key && r.Day == search.Key.Day
                    )
                    .OrderByDescending(r => r.Id)
                    .ToListAsync(stop)
            ).ConvertAll(r => r.Page);
            foreach (var listing in own)
                if (
                    OwnListings.Observe(pages, listing, search.First().Term, search.Key.Day) is { } row
                    && (
                        row.Found
                            ? search.Any(r => OwnListings.Find(r.Page.Results, listing) is not null)
                            : await IsWatched(listing.Id, marketId, search.Key.Key, stop)
                    )
                )
                {
                    if (!seen.TryGetValue(listing.Id, out var all))
                        seen[listing.Id] = all = [];
                    all.Add((row, search.First().Source));
                }
        }

        foreach (var (listing, all) in seen)
            steps.AddRange(
                await ObservedChecks.Add(
                    db,
                    market,
                    listing,
                    marketId,
                    [.. all.Select(a => a.Row)],
                    all.Count == 1 ? all[0].Source : "Results pages",
                    stop
                )
            );
        return steps;
    }

    private async Task<bool> IsWatched(int listingId, string marketId, string key, CancellationToken stop) =>
        await db.FollowedTerms.AnyAsync(t => t.ListingId == listingId && t.MarketId == marketId && t.Key == key, stop)
        || (await db.ProductOf(listingId, stop) is { } product && await db.PicksInUse(product).AnyAsync(p => p.Key == key, stop));

    private static string? TermOf(DroppedThing thing) =>
        (thing.Choice.Term ?? thing.Content.Page!.Query ?? thing.Content.Context.Term)?.Trim()
            is { Length: > 0 and <= Bounds.TermLength } term
        && Tokens.Key(term).Length > 0
            ? term
            : null;

    private static ReadPage WithPictures(DroppedThing thing) =>
        thing.Content.Page! with
        {
            Results =
            [
                .. thing.Content.Page!.Results.Select(r =>
                    r.Image is { Address: { } address } image && thing.PictureOf(address) is { } picture
                        ? r with
                        {
                            Image = image with { Picture = picture },
                        }
                        : r
                ),
            ],
        };

    private static string Start(string title) => title.Length <= 60 ? title : title[..40];
}
