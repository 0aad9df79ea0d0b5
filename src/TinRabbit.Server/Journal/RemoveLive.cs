namespace TinRabbit.Server.Journal;

/// <summary>Takes back that a listing's texts are live.</summary>
public sealed record RemoveLive(int SentId) : IUndoStep
{
    public async Task<IReadOnlyList<IUndoStep>> Undo(UndoContext undo, CancellationToken stop)
    {
        if (await undo.Db.Sent.FindAsync([SentId], stop) is not { } sent)
            return [];
        undo.Db.Sent.Remove(sent);
        return [new MarkLive(sent.Id, sent.ListingId, sent.MarketId, sent.At, sent.NoticedAt, sent.Copy, sent.ByHand)];
    }
}
