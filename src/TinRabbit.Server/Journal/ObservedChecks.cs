using TinRabbit.Server.Files.Tables;
using TinRabbit.Server.Markets;

namespace TinRabbit.Server.Journal;

/// <summary>Found checks that the seller made: what they saw, from a table or from results pages.</summary>
internal static class ObservedChecks
{
    /// <summary>Adds what was found of a listing: one check for each day.</summary>
    /// <param name="db">The database.</param>
    /// <param name="market">Tells the time of a day.</param>
    /// <param name="listingId">The listing.</param>
    /// <param name="marketId">Where it was looked for.</param>
    /// <param name="rows">What was found; a row without a day is of today. Where a term is there twice on a day, the last one counts.</param>
    /// <param name="source">Where it came from, as it is shown.</param>
    /// <param name="stop">Stops waiting; nothing is added then.</param>
    /// <returns>What takes it back.</returns>
    /// <exception cref="InvalidInputException">The listing would have too many terms.</exception>
    public static async Task<IReadOnlyList<IUndoStep>> Add(
        TinContext db,
        IMarket market,
        int listingId,
        string marketId,
        IReadOnlyList<ObservedRow> rows,
        string source,
        CancellationToken stop
    )
    {
        var added = new List<int>();
        var watch = await WatchBefore.Of(db, listingId, marketId, stop);
        var followed = await Followed(db, listingId, marketId, stop);
        await db.InOneWrite(
            async () =>
            {
                await db.WatchOf(listingId, marketId, stop);
                var ids = await Follow(db, listingId, marketId, rows.Select(r => r.Term), stop);
                foreach (var day in rows.GroupBy(r => r.Day ?? market.Today).OrderBy(g => g.Key))
                {
                    var check = new CheckRow
                    {
                        ListingId = listingId,
                        MarketId = marketId,
                        At = market.TimeOf(day.Key),
                        Day = day.Key,
                        Source = source,
                        State = CheckState.Finished,
                    };
                    await AddCheck(db, check, day, ids, stop);
                    added.Add(check.Id);
                }
            },
            stop
        );
        return
        [
            RemoveRows.Of<CheckRow>(added),
            RemoveRows.Of<FollowedTermRow>((await Followed(db, listingId, marketId, stop)).Except(followed)),
            watch,
        ];
    }

    /// <summary>Follows terms, and gives each key's number. The caller's transaction saves.</summary>
    /// <exception cref="InvalidInputException">The listing would have too many.</exception>
    public static async Task<Dictionary<string, int>> Follow(
        TinContext db,
        int listingId,
        string marketId,
        IEnumerable<string> terms,
        CancellationToken stop
    )
    {
        var known = await db
            .FollowedTerms.IgnoreQueryFilters()
            .Where(t => t.ListingId == listingId && t.MarketId == marketId)
            .ToDictionaryAsync(t => t.Key, stop);
        var wanted = new Dictionary<string, FollowedTermRow>();
        foreach (var text in terms.Select(t => t.Trim()))
        {
            var key = Tokens.Key(text);
            if (key.Length == 0 || wanted.ContainsKey(key))
                continue;
            if (!known.TryGetValue(key, out var row))
                row = db
                    .FollowedTerms.Add(
                        new()
                        {
                            ListingId = listingId,
                            MarketId = marketId,
                            Key = key,
                            Text = text,
                        }
                    )
                    .Entity;
            row.DeletedAt = null;
            wanted[key] = known[key] = row;
        }

        if (known.Values.Count(t => t.DeletedAt == null) is > Bounds.FollowedTerms and var all)
            throw new InvalidInputException([
                new(
                    "terms",
                    $"There would be {all:#,0} terms to check for this listing; the limit is {Bounds.FollowedTerms:#,0}. Stop checking some first."
                ),
            ]);
        await db.SaveChangesAsync(stop);
        return wanted.ToDictionary(w => w.Key, w => w.Value.Id);
    }

    private static async Task AddCheck(
        TinContext db,
        CheckRow check,
        IEnumerable<ObservedRow> rows,
        Dictionary<string, int> ids,
        CancellationToken stop
    )
    {
        db.Checks.Add(check);
        await db.SaveChangesAsync(stop);
        db.Finds.AddRange(
            rows.Where(r => Tokens.Key(r.Term).Length > 0)
                .GroupBy(r => Tokens.Key(r.Term))
                .Select(g => (Id: ids[g.Key], Row: g.Last()))
                .Select(f => new FindRow
                {
                    CheckId = check.Id,
                    TermId = f.Id,
                    IsDone = true,
                    Found = f.Row.Found,
                    Rank = f.Row.Rank,
                    Results = f.Row.Results,
                })
        );
        await db.SaveChangesAsync(stop);
    }

    private static Task<List<int>> Followed(TinContext db, int listingId, string marketId, CancellationToken stop) =>
        db.FollowedTerms.Where(t => t.ListingId == listingId && t.MarketId == marketId).Select(t => t.Id).ToListAsync(stop);
}
