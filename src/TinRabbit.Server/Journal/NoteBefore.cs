namespace TinRabbit.Server.Journal;

/// <summary>A change note as it was before it was edited.</summary>
public sealed record NoteBefore(int NoteId, NoteState Note) : IUndoStep
{
    public async Task<IReadOnlyList<IUndoStep>> Undo(UndoContext undo, CancellationToken stop)
    {
        if (await undo.Db.Notes.FirstOrDefaultAsync(n => n.Id == NoteId, stop) is not { } row)
            return [];
        var now = new NoteBefore(NoteId, NoteState.Of(row));
        Note.ApplyTo(row);
        return [now];
    }
}
