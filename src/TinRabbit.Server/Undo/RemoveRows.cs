namespace TinRabbit.Server.Undo;

/// <summary>Deletes rows of one kind that a change added, so that they can come back.</summary>
/// <param name="Rows">The name of their type.</param>
/// <param name="Keys">Their numbers or ids; of numbers that follow each other, the first and the last, joined by two dots.</param>
public sealed record RemoveRows(string Rows, IReadOnlyList<string> Keys) : IUndoStep
{
    /// <summary>Deletes rows by their numbers.</summary>
    public static RemoveRows Of<T>(IEnumerable<int> ids)
        where T : IDeletable => Of(typeof(T).Name, ids);

    /// <summary>Deletes rows of a kind by their numbers.</summary>
    public static RemoveRows Of(string rows, IEnumerable<int> ids) => new(rows, Ranges(ids));

    public async Task<IReadOnlyList<IUndoStep>> Undo(UndoContext undo, CancellationToken stop)
    {
        var (rows, isNumbered) = DeletableRows.Named(undo.Db, Rows);
        var removed = new List<IDeletable>();
        foreach (var key in Keys)
            removed.AddRange(await (isNumbered ? Numbered(rows, key) : WithId(rows, key)).ToListAsync(stop));
        foreach (var row in removed)
            row.DeletedAt = undo.Now;
        return removed.Count == 0 ? [] : [new RestoreDeleted(undo.Now)];
    }

    private static IQueryable<IDeletable> WithId(IQueryable<IDeletable> rows, string id) =>
        rows.Where(r => EF.Property<string>(r, nameof(ChangeRow.Id)) == id);

    private static IQueryable<IDeletable> Numbered(IQueryable<IDeletable> rows, string key)
    {
        var numbers = key.Split("..");
        var (first, last) = (Number(numbers[0]), Number(numbers[^1]));
        return rows.Where(r => EF.Property<int>(r, nameof(ChangeRow.Id)) >= first && EF.Property<int>(r, nameof(ChangeRow.Id)) <= last);
    }

    private static int Number(string text) => int.Parse(text, CultureInfo.InvariantCulture);

    private static List<string> Ranges(IEnumerable<int> ids)
    {
        var ranges = new List<(int First, int Last)>();
        foreach (var id in ids.Order())
            if (ranges.Count > 0 && ranges[^1].Last + 1 == id)
                ranges[^1] = ranges[^1] with { Last = id };
            else
                ranges.Add((id, id));
        return [.. ranges.Select(r => r.First == r.Last ? $"{r.First}" : $"{r.First}..{r.Last}")];
    }
}
