namespace TinRabbit.Server.Shelf;

/// <summary>Brings terms back that were deleted, with their readings.</summary>
public sealed record RestoreTerms(string MarketId, IReadOnlyList<DeletedTerm> Terms) : IUndoStep
{
    public async Task<IReadOnlyList<IUndoStep>> Undo(UndoContext undo, CancellationToken stop)
    {
        foreach (var gone in Terms)
        {
            var term =
                await undo.Db.Terms.FirstOrDefaultAsync(t => t.MarketId == MarketId && t.Key == gone.Key, stop)
                ?? undo.Db.Terms.Add(
                    new()
                    {
                        MarketId = MarketId,
                        Text = gone.Text,
                        Key = gone.Key,
                    }
                ).Entity;
            await undo.Db.SaveChangesAsync(stop);
            foreach (var reading in gone.Readings)
            {
                var counts = reading.Id == gone.ReadingId;
                (reading.Id, reading.TermId) = (0, term.Id);
                undo.Db.Readings.Add(reading);
                await undo.Db.SaveChangesAsync(stop);
                if (counts)
                    term.ReadingId = reading.Id;
            }
        }

        await undo.Db.SaveChangesAsync(stop);
        undo.Get<Shelves>().Evict(MarketId);
        return [new RemoveTerms(MarketId, [.. Terms.Select(t => t.Key)])];
    }
}
