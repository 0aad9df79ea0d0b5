using TinRabbit.Server.Listings;

namespace TinRabbit.Server.Picks;

/// <summary>A product's facts and picks as they were before a change.</summary>
/// <param name="Facts">Its facts; null where they were not changed.</param>
/// <param name="Picks">The picks that were touched, by key; null for one that was not there.</param>
public sealed record ProductState(int Id, Facts? Facts, IReadOnlyDictionary<string, PickState?> Picks) : IUndoStep
{
    public bool IsUnder(IUndoStep later) =>
        later is ProductState other
        && other.Id == Id
        && ((Facts is not null && other.Facts is not null) || Picks.Keys.Any(other.Picks.ContainsKey));

    public async Task<IReadOnlyList<IUndoStep>> Undo(UndoContext undo, CancellationToken stop)
    {
        if (await undo.Db.Products.FirstOrDefaultAsync(p => p.Id == Id, stop) is not { } product)
            return [];
        var keys = Picks.Keys.ToList();
        var rows = await undo.Db.Picks.Where(p => p.ProductId == Id && keys.Contains(p.Key)).ToDictionaryAsync(p => p.Key, stop);
        var now = new ProductState(
            Id,
            Facts is null ? null : product.Facts,
            keys.ToDictionary(k => k, k => rows.TryGetValue(k, out var row) ? PickState.Of(row) : null)
        );
        undo.Db.Picks.RemoveRange(rows.Values.Where(r => Picks[r.Key] is null));
        foreach (var (key, state) in Picks)
            if (state is not null)
                state.ApplyTo(rows.GetValueOrDefault(key) ?? Add(undo, key, state.Text));
        if (Facts is not null)
            (product.Facts, product.Revision) = (Facts, product.Revision + 1);
        return [now];
    }

    private PickRow Add(UndoContext undo, string key, string text) =>
        undo
            .Db.Picks.Add(
                new()
                {
                    ProductId = Id,
                    Key = key,
                    Text = text,
                }
            )
            .Entity;
}
