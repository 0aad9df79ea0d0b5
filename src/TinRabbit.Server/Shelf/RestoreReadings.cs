namespace TinRabbit.Server.Shelf;

/// <summary>Puts readings back that were taken back; they count again.</summary>
public sealed record RestoreReadings(string MarketId, IReadOnlyList<RemovedReading> Readings) : IUndoStep
{
    public async Task<IReadOnlyList<IUndoStep>> Undo(UndoContext undo, CancellationToken stop)
    {
        var terms = await Shelves.TermsOf(undo.Db, MarketId, [.. Readings.Select(r => r.Key)], stop);
        var back = new List<AddedReading>();
        foreach (var gone in Readings)
            if (terms.TryGetValue(gone.Key, out var term))
            {
                var reading = gone.Reading;
                (reading.Id, reading.TermId) = (0, term.Id);
                var before = term.ReadingId;
                term.Reading = undo.Db.Readings.Add(reading).Entity;
                await undo.Db.SaveChangesAsync(stop);
                back.Add(new(gone.Key, reading.Id, before));
            }

        undo.Get<Shelves>().Evict(MarketId);
        return back.Count > 0 ? [new RemoveReadings(MarketId, back)] : [];
    }
}
