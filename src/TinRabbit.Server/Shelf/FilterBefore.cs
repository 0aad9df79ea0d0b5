namespace TinRabbit.Server.Shelf;

/// <summary>A filter as it was before a change.</summary>
public sealed record FilterBefore(int FilterId, string Filters) : IUndoStep
{
    public async Task<IReadOnlyList<IUndoStep>> Undo(UndoContext undo, CancellationToken stop)
    {
        if (await undo.Db.Filters.FirstOrDefaultAsync(f => f.Id == FilterId, stop) is not { } filter)
            return [];
        var now = new FilterBefore(FilterId, filter.Filters);
        filter.Filters = Filters;
        return [now];
    }
}
