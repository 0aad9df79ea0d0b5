using Microsoft.EntityFrameworkCore;
using TinRabbit.Server.Undo;

namespace TinRabbit.Server.Listings;

/// <summary>A version's name before a change; empty where it had none.</summary>
public sealed record VersionName(int VersionId, string Name) : IUndoStep
{
    public async Task<IReadOnlyList<IUndoStep>> Undo(UndoContext undo, CancellationToken stop)
    {
        if (await undo.Db.Versions.FirstOrDefaultAsync(r => r.Id == VersionId, stop) is not { } version)
            return [];
        var now = new VersionName(VersionId, version.Name);
        version.Name = Name;
        return [now];
    }
}
