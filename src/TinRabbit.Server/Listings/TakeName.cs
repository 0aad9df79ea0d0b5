using Microsoft.EntityFrameworkCore;
using TinRabbit.Server.Undo;

namespace TinRabbit.Server.Listings;

/// <summary>A take's name before a change; empty where it had none.</summary>
public sealed record TakeName(int TakeId, string Name) : IUndoStep
{
    public async Task<IReadOnlyList<IUndoStep>> Undo(UndoContext undo, CancellationToken stop)
    {
        if (await undo.Db.Takes.FirstOrDefaultAsync(r => r.Id == TakeId, stop) is not { } take)
            return [];
        var now = new TakeName(TakeId, take.Name);
        take.Name = Name;
        return [now];
    }
}
