namespace TinRabbit.Server.Shelf;

/// <summary>Takes readings back that were pasted or corrected: what counted before counts again.</summary>
public sealed record RemoveReadings(string MarketId, IReadOnlyList<AddedReading> Readings) : IUndoStep
{
    /// <summary>What takes back what was put on a shelf: new terms go, and others get the readings that they had.</summary>
    /// <param name="marketId">The market.</param>
    /// <param name="before">By key, the reading that counted before; null for a term without one. New terms are not among them.</param>
    /// <param name="after">The terms as they are now.</param>
    public static List<IUndoStep> Of(string marketId, IReadOnlyDictionary<string, int?> before, IReadOnlyDictionary<string, TermRow> after)
    {
        var steps = new List<IUndoStep>();
        var readings = after
            .Where(t => before.TryGetValue(t.Key, out var id) && t.Value.ReadingId != id && t.Value.ReadingId is not null)
            .Select(t => new AddedReading(t.Key, t.Value.ReadingId!.Value, before[t.Key]))
            .ToList();
        if (readings.Count > 0)
            steps.Add(new RemoveReadings(marketId, readings));
        if (after.Keys.Where(k => !before.ContainsKey(k)).ToList() is { Count: > 0 } added)
            steps.Add(new RemoveTerms(marketId, added));
        return steps;
    }

    public async Task<IReadOnlyList<IUndoStep>> Undo(UndoContext undo, CancellationToken stop)
    {
        var terms = await Shelves.TermsOf(undo.Db, MarketId, [.. Readings.Select(r => r.Key)], stop);
        var gone = new List<RemovedReading>();
        foreach (var added in Readings)
            if (
                terms.TryGetValue(added.Key, out var term)
                && await undo.Db.Readings.FindAsync([added.ReadingId], stop) is { } reading
                && reading.TermId == term.Id
            )
            {
                if (term.ReadingId == reading.Id)
                    term.ReadingId = added.BeforeId;
                gone.Add(new(added.Key, reading));
            }

        await undo.Db.SaveChangesAsync(stop);
        undo.Db.Readings.RemoveRange(gone.Select(g => g.Reading));
        await undo.Db.SaveChangesAsync(stop);
        undo.Get<Shelves>().Evict(MarketId);
        return gone.Count > 0 ? [new RestoreReadings(MarketId, gone)] : [];
    }

    public bool IsUnder(IUndoStep later) =>
        later is RemoveReadings other && other.MarketId == MarketId && other.Readings.Any(o => Readings.Any(r => r.Key == o.Key));
}
