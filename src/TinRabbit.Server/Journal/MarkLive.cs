using TinRabbit.Server.Listings;

namespace TinRabbit.Server.Journal;

/// <summary>Notes again that a listing's texts were live, after that was taken back.</summary>
/// <param name="ByHand">Whether the seller said so; the only kind that there was in older programs.</param>
public sealed record MarkLive(int Id, int ListingId, string MarketId, DateTime At, DateTime NoticedAt, ListingText Copy, bool ByHand = true)
    : IUndoStep
{
    public async Task<IReadOnlyList<IUndoStep>> Undo(UndoContext undo, CancellationToken stop)
    {
        var row = new SentRow
        {
            Id = Id,
            ListingId = ListingId,
            MarketId = MarketId,
            At = At,
            NoticedAt = NoticedAt,
            ByHand = ByHand,
            Copy = Copy,
        };
        undo.Db.Sent.Add(row);
        await undo.Db.SaveChangesAsync(stop);
        return [new RemoveLive(row.Id)];
    }
}
