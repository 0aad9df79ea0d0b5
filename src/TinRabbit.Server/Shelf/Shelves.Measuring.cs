using TinRabbit.Server.Markets;

namespace TinRabbit.Server.Shelf;

// What is not known, or not fresh, is asked of the market.
public sealed partial class Shelves
{
    /// <summary>Measures terms that the shelf has no fresh reading of, and puts all of them on it.</summary>
    /// <returns>Every term given, by key.</returns>
    public async Task<Dictionary<string, TermRow>> Measure(
        TinContext db,
        string marketId,
        IReadOnlyCollection<string> texts,
        CancellationToken stop,
        bool settle = true
    ) => (await Measure(db, marketId, texts, LookupPurpose.Asked, settle, stop)).Terms;

    /// <summary>The same, but what nobody types there is left out, of the answer and of the shelf, unless it lies there already.</summary>
    public async Task<Dictionary<string, TermRow>> MeasureTyped(
        TinContext db,
        string marketId,
        IReadOnlyCollection<string> texts,
        CancellationToken stop
    ) => (await Measure(db, marketId, texts, LookupPurpose.Shown, settle: true, stop)).Terms;

    /// <summary>The same in the background.</summary>
    /// <returns>How many terms the day's budget did not allow to ask for.</returns>
    public async Task<int> MeasureInBackground(TinContext db, string marketId, IReadOnlyCollection<string> texts, CancellationToken stop) =>
        (await Measure(db, marketId, texts, LookupPurpose.Background, settle: true, stop)).Late;

    private async Task<(Dictionary<string, TermRow> Terms, int Late)> Measure(
        TinContext db,
        string marketId,
        IReadOnlyCollection<string> texts,
        LookupPurpose purpose,
        bool settle,
        CancellationToken stop
    )
    {
        var from = ShelfLine.DayOf(db.Now) - FreshDays;
        var byKey = texts.Select(t => (Text: t, Key: Tokens.Key(t))).Where(t => t.Key.Length > 0).DistinctBy(t => t.Key).ToList();
        // Fresh readings are not measured again, and corrected ones never are.
        var (fresh, there) = await Query(
            db,
            marketId,
            shelf =>
            {
                var rows = byKey.Select(t => (t.Key, Row: shelf.RowOf(t.Key))).Where(t => t.Row >= 0).ToList();
                return (
                    rows.Where(t => shelf[t.Row].Day > from || shelf[t.Row].Source == ByHand).Select(t => t.Key).ToHashSet(),
                    rows.Select(t => t.Key).ToHashSet()
                );
            },
            stop
        );
        // Only what the seller asks for is asked of the market once more where it was unknown, and lies on the shelf without a number.
        var isAsked = purpose == LookupPurpose.Asked;
        var isUnknown = await unknownTerms.Of(db, marketId, stop);
        var stale = byKey.Where(t => !fresh.Contains(t.Key) && (isAsked || !isUnknown(t.Key))).ToList();
        var allowed = await budget.Take(db, stale.Count, purpose, stop);
        var measured = allowed == 0 ? [] : await market.Measure(marketId, [.. stale.Take(allowed).Select(t => t.Text)], stop);
        await unknownTerms.Add(db, marketId, [.. stale.Zip(measured).Where(t => t.Second is null).Select(t => t.First.Key)], purpose, stop);
        var found = stale
            .Select(
                (t, i) => new Found(t.Text, i < allowed && measured[i] is { } m && m != Measurement.Unknown ? ReadingOf(m, db.Now) : null)
            )
            .Where(f => isAsked || f.Reading is not null)
            .ToList();
        var terms = found.Count > 0 ? await Save(db, marketId, found, stop, settle, keepsByHand: true) : [];
        foreach (var (key, term) in await TermsOf(db, marketId, [.. there.Where(k => !terms.ContainsKey(k))], stop))
            terms[key] = term;
        return (terms, stale.Count - allowed);
    }

    private ReadingRow ReadingOf(Measurement m, DateTime now) =>
        new()
        {
            Volume = m.Volume,
            Competition = m.Competition,
            TitlesHolding = m.TitlesHolding,
            ClickCost = m.ClickCost,
            Months = m.Months,
            From = m.From,
            Source = market.Name,
            TakenAt = now,
        };
}
