using Microsoft.EntityFrameworkCore;
using TinRabbit.Core.Words;
using TinRabbit.Server.Undo;

namespace TinRabbit.Server.Shelf;

/// <summary>A term's text before a change.</summary>
public sealed record TermText(int TermId, string Text) : IUndoStep
{
    public async Task<IReadOnlyList<IUndoStep>> Undo(UndoContext undo, CancellationToken stop)
    {
        if (await undo.Db.Terms.FirstOrDefaultAsync(t => t.Id == TermId, stop) is not { } term)
            return [];
        var now = new TermText(TermId, term.Text);
        (term.Text, term.Key) = (Text, Tokens.Key(Text));
        await undo.Db.SaveChangesAsync(stop);
        undo.Get<Shelves>().Evict(term.MarketId);
        return [now];
    }
}
