namespace TinRabbit.Server.Shelf;

/// <summary>A term's text before a change.</summary>
public sealed record TermText(int TermId, string Text) : IUndoStep
{
    public async Task<IReadOnlyList<IUndoStep>> Undo(UndoContext undo, CancellationToken stop)
    {
        if (await undo.Db.Terms.FirstOrDefaultAsync(t => t.Id == TermId, stop) is not { } term)
            return [];
        var (now, key) = (new TermText(TermId, term.Text), Tokens.Key(Text));
        if (await undo.Db.Terms.AnyAsync(t => t.MarketId == term.MarketId && t.Key == key && t.Id != TermId, stop))
            throw new InvalidInputException([new("change", $"“{Text}” is on this shelf again. Delete it first, then undo.")]);
        (term.Text, term.Key) = (Text, key);
        await undo.Db.SaveChangesAsync(stop);
        undo.Get<Shelves>().Evict(term.MarketId);
        return [now];
    }
}
