namespace TinRabbit.Server.Listings;

/// <summary>Old slugs as they were before a change, each with the page that it led to; null where it led nowhere.</summary>
public sealed record RedirectsBefore(IReadOnlyDictionary<string, int?> Pages) : IUndoStep
{
    public async Task<IReadOnlyList<IUndoStep>> Undo(UndoContext undo, CancellationToken stop)
    {
        var slugs = Pages.Keys.ToList();
        var rows = await undo.Db.Redirects.Where(r => slugs.Contains(r.From)).ToDictionaryAsync(r => r.From, stop);
        var now = slugs.ToDictionary(s => s, s => rows.GetValueOrDefault(s)?.PageId);
        undo.Db.Redirects.RemoveRange(rows.Values.Where(r => Pages[r.From] is null));
        foreach (var (slug, page) in Pages)
            if (page is { } id && rows.GetValueOrDefault(slug) is { } row)
                row.PageId = id;
            else if (page is { } missing)
                undo.Db.Redirects.Add(new() { From = slug, PageId = missing });
        return [new RedirectsBefore(now)];
    }
}
