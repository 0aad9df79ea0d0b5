using TinRabbit.Server.Files.Documents;
using TinRabbit.Server.Shelf;

namespace TinRabbit.Server.Features.Pages;

/// <summary>Adds the terms of a document that a shop lacks, and readings of terms that it has. Of two readings the newer one counts.</summary>
internal sealed class TermsImport(TinContext db, IReadOnlyList<DocumentTerm> terms)
{
    private const int AtOnce = 1_000;

    /// <summary>How much of a market there is to add.</summary>
    private sealed record Lacking(DocumentTerm Given, string Key, TermRow? Row, IReadOnlyList<int> Readings);

    /// <summary>The markets whose shelves were changed.</summary>
    public List<string> Changed { get; } = [];

    /// <summary>What names a market's terms in the choice of what to import.</summary>
    public static string KeyOf(string market) => $"terms {market}";

    /// <summary>How many terms and readings each market would get; nothing is written.</summary>
    public async Task<IReadOnlyList<(string Market, int Now, int Terms, int Readings)>> Plan(CancellationToken stop)
    {
        var planned = new List<(string, int, int, int)>();
        foreach (var market in terms.GroupBy(t => t.Market).OrderBy(g => g.Key, StringComparer.Ordinal))
        {
            var (added, readings) = (0, 0);
            foreach (var some in market.Chunk(AtOnce))
            foreach (var lacking in await LackingOf(market.Key, some, stop))
            {
                added += lacking.Row is null ? 1 : 0;
                readings += lacking.Readings.Count;
            }

            planned.Add((market.Key, await db.Terms.CountAsync(t => t.MarketId == market.Key, stop), added, readings));
        }

        return planned;
    }

    /// <summary>Adds them; the caller's transaction commits.</summary>
    /// <param name="isChosen">Whether a market's terms were chosen.</param>
    /// <param name="stop">Stops the import.</param>
    /// <returns>What takes them back.</returns>
    public async Task<List<IUndoStep>> Run(Func<string, bool> isChosen, CancellationToken stop)
    {
        var steps = new List<IUndoStep>();
        foreach (var market in terms.GroupBy(t => t.Market).Where(g => isChosen(g.Key)))
        {
            var (added, readings) = (new List<string>(), new List<AddedReading>());
            foreach (var some in market.Chunk(AtOnce))
            {
                stop.ThrowIfCancellationRequested();
                await Add(market.Key, await LackingOf(market.Key, some, stop), added, readings, stop);
            }

            if (readings.Count > 0)
                steps.Add(new RemoveReadings(market.Key, readings));
            if (added.Count > 0)
                steps.Add(new RemoveTerms(market.Key, added));
            if (readings.Count + added.Count > 0)
                Changed.Add(market.Key);
        }

        return steps;
    }

    private async Task Add(
        string market,
        List<Lacking> lacking,
        List<string> added,
        List<AddedReading> addedReadings,
        CancellationToken stop
    )
    {
        var rows = lacking.ConvertAll(l =>
            (
                Of: l,
                Term: l.Row
                    ?? db.Terms.Add(
                        new()
                        {
                            MarketId = market,
                            Text = l.Given.Text.Trim(),
                            Key = l.Key,
                        }
                    ).Entity,
                Before: l.Row?.ReadingId
            )
        );
        await db.SaveChangesAsync(stop);
        var readings = rows.ConvertAll(r =>
            r.Of.Readings.Select(place => (Place: place, Row: RowOf(r.Of.Given.Readings![place], r.Term.Id))).ToList()
        );
        db.Readings.AddRange(readings.SelectMany(r => r).Select(r => r.Row));
        await db.SaveChangesAsync(stop);
        foreach (var ((of, term, before), its) in rows.Zip(readings))
        {
            if (its.FirstOrDefault(r => r.Place == of.Given.InForce).Row is { } counts && IsOlder(of.Row?.Reading, counts))
            {
                (term.Reading, term.ReadingId) = (counts, counts.Id);
                db.Update(term);
            }

            if (of.Row is null)
                added.Add(of.Key);
            else
                addedReadings.AddRange(its.Select(r => new AddedReading(of.Key, r.Row.Id, before)));
        }

        await db.SaveChangesAsync(stop);
        // A shelf may have a million terms: none is held for the rest of the import.
        foreach (var entry in db.ChangeTracker.Entries().Where(e => e.Entity is TermRow or ReadingRow).ToList())
            entry.State = EntityState.Detached;
    }

    private async Task<List<Lacking>> LackingOf(string market, IEnumerable<DocumentTerm> given, CancellationToken stop)
    {
        var byKey = given
            .Select(t => (Term: t, Key: Tokens.Key(t.Text)))
            .Where(t => t.Key.Length > 0)
            .DistinctBy(t => t.Key)
            .ToDictionary(t => t.Key, t => t.Term);
        var keys = byKey.Keys.ToList();
        var rows = await db
            .Terms.AsNoTracking()
            .Include(t => t.Reading)
            .Where(t => t.MarketId == market && keys.Contains(t.Key))
            .ToDictionaryAsync(t => t.Key, stop);
        var ids = rows.Values.Select(r => r.Id).ToList();
        var known = (
            await db
                .Readings.Where(r => ids.Contains(r.TermId))
                .Select(r => new
                {
                    r.TermId,
                    r.Source,
                    r.TakenAt,
                })
                .ToListAsync(stop)
        ).Select(r => (r.TermId, r.Source, r.TakenAt)).ToHashSet();
        return
        [
            .. byKey
                .Select(t =>
                {
                    var row = rows.GetValueOrDefault(t.Key);
                    return new Lacking(
                        t.Value,
                        t.Key,
                        row,
                        [
                            .. (t.Value.Readings ?? [])
                                .Index()
                                .Where(r => row is null || !known.Contains((row.Id, r.Item.Source, r.Item.TakenAt)))
                                .Select(r => r.Index),
                        ]
                    );
                })
                .Where(l => l.Row is null || l.Readings.Count > 0),
        ];
    }

    // The newer of two counts, but for what a person corrected.
    private static bool IsOlder(ReadingRow? counts, ReadingRow given) =>
        counts is null || (counts.TakenAt < given.TakenAt && counts.Source != Shelves.ByHand);

    private static ReadingRow RowOf(DocumentReading reading, int termId) =>
        new()
        {
            TermId = termId,
            Source = reading.Source,
            TakenAt = reading.TakenAt,
            Volume = reading.Volume,
            VolumeBelow = reading.VolumeBelow,
            Competition = reading.Competition,
            TitlesHolding = reading.TitlesHolding,
            ClickCost = reading.ClickCost,
            Months = reading.Months,
            From = reading.From,
            Kept = reading.Kept,
            Popularity = reading.Popularity,
            Clicks = reading.Clicks,
            Orders = reading.Orders,
            Sales = reading.Sales,
        };
}
