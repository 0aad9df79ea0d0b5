namespace TinRabbit.Server.Listings;

/// <summary>Pages as they were before a change: where they are in the tree, and what is known of them beside their texts.</summary>
public sealed record PagesBefore(IReadOnlyList<PageState> Pages) : IUndoStep
{
    public async Task<IReadOnlyList<IUndoStep>> Undo(UndoContext undo, CancellationToken stop)
    {
        var ids = Pages.Select(p => p.Id).ToList();
        var rows = await undo.Db.Pages.Where(p => ids.Contains(p.Id)).ToDictionaryAsync(p => p.Id, stop);
        var now = rows.Values.Select(PageState.Of).ToList();
        foreach (var page in Pages)
            if (rows.TryGetValue(page.Id, out var row))
                page.ApplyTo(row);
        return now.Count == 0 ? [] : [new PagesBefore(now)];
    }
}
