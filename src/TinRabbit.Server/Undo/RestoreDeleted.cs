namespace TinRabbit.Server.Undo;

/// <summary>Brings back everything that was deleted at one time.</summary>
/// <param name="At">The time.</param>
/// <param name="Removal">What deletes it again, with what belongs to it by then; null where that is nothing more than the rows.</param>
public sealed record RestoreDeleted(DateTime At, IUndoStep? Removal = null) : IUndoStep
{
    public async Task<IReadOnlyList<IUndoStep>> Undo(UndoContext undo, CancellationToken stop)
    {
        var rows = await DeletableRows.DeletedAt(undo.Db, At, stop);
        foreach (var row in rows.OfType<IRestored>())
            if (await row.WhyNot(undo.Db, stop) is { } why)
                throw new InvalidInputException([new("change", why)]);
        foreach (var row in rows)
            row.DeletedAt = null;
        return Removal is not null && rows.Count > 0
            ? [Removal]
            : [.. rows.GroupBy(r => r.GetType().Name).Select(g => new RemoveRows(g.Key, [.. g.Select(r => KeyOf(undo.Db, r))]))];
    }

    private static string KeyOf(TinContext db, IDeletable row) =>
        Convert.ToString(db.Entry(row).Property(nameof(ChangeRow.Id)).CurrentValue, System.Globalization.CultureInfo.InvariantCulture)!;
}
