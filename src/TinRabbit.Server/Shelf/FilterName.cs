using Microsoft.EntityFrameworkCore;
using TinRabbit.Server.Undo;

namespace TinRabbit.Server.Shelf;

/// <summary>A filter's name before a change.</summary>
public sealed record FilterName(int FilterId, string Name) : IUndoStep
{
    public async Task<IReadOnlyList<IUndoStep>> Undo(UndoContext undo, CancellationToken stop)
    {
        if (await undo.Db.Filters.FirstOrDefaultAsync(f => f.Id == FilterId, stop) is not { } filter)
            return [];
        var now = new FilterName(FilterId, filter.Name);
        filter.Name = Name;
        return [now];
    }
}
