namespace TinRabbit.Server.Undo;

/// <summary>Gives a row the name that it had before a change.</summary>
/// <param name="Rows">The name of its type.</param>
/// <param name="Id">Its number.</param>
/// <param name="Name">What it was called.</param>
public sealed record RenameRow(string Rows, int Id, string Name) : IUndoStep
{
    /// <summary>What gives a row back the name that it has now.</summary>
    public static RenameRow Of<T>(T row, int id)
        where T : IRenamed => new(typeof(T).Name, id, row.Name);

    public async Task<IReadOnlyList<IUndoStep>> Undo(UndoContext undo, CancellationToken stop)
    {
        var rows = DeletableRows.Named(undo.Db, Rows).Rows;
        if (await rows.FirstOrDefaultAsync(r => EF.Property<int>(r, nameof(Id)) == Id, stop) is not IRenamed row)
            return [];
        var now = this with { Name = row.Name };
        row.Rename(Name);
        return row is IRestored restored && await restored.WhyNot(undo.Db, stop) is { } why
            ? throw new InvalidInputException([new("change", why)])
            : [now];
    }
}
