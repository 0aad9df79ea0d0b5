using Microsoft.EntityFrameworkCore;
using TinRabbit.Server.Undo;

namespace TinRabbit.Server.Shelf;

/// <summary>What an import was called before a change.</summary>
public sealed record ImportSource(int ImportId, string Source) : IUndoStep
{
    public async Task<IReadOnlyList<IUndoStep>> Undo(UndoContext undo, CancellationToken stop)
    {
        if (await undo.Db.Imports.FirstOrDefaultAsync(i => i.Id == ImportId, stop) is not { } import)
            return [];
        var now = new ImportSource(ImportId, import.Source);
        import.Source = Source;
        return [now];
    }
}
