namespace TinRabbit.Server.Drops;

/// <summary>The roles of the columns of a table that was dropped: guessed, then corrected.</summary>
internal static class TableRoles
{
    private const int Samples = 3;

    /// <summary>The role of each column, by its number: the given one where the seller chose one, otherwise the guess.</summary>
    public static string[] Of(DropTable table, DropChoice choice, Func<int, string> guess) =>
        [.. Enumerable.Range(0, table.Width).Select(i => choice.Columns?.LastOrDefault(c => c.Column == i)?.Role ?? guess(i))];

    /// <summary>The columns as they are shown.</summary>
    public static IReadOnlyList<DropColumn> Shown(DropTable table, IReadOnlyList<string> roles, IReadOnlyList<DropKindName> names) =>
        [.. roles.Select((role, i) => new DropColumn(i, table.Heads[i], [.. table.Column(i).Distinct().Take(Samples)], role, names))];

    /// <summary>The rows of a preview: the columns that are used.</summary>
    public static (IReadOnlyList<string> Heads, IReadOnlyList<DropRow> Rows) Rows(
        DropTable table,
        string[] roles,
        IReadOnlyList<DropKindName> names
    )
    {
        var used = Enumerable.Range(0, table.Width).Where(i => roles[i].Length > 0).ToList();
        return (
            [.. used.Select(i => names.FirstOrDefault(n => n.Id == roles[i])?.Name ?? table.Heads[i])],
            [.. table.Rows.Take(DropShown.MostRows).Select(r => new DropRow([.. used.Select(i => i < r.Length ? r[i] : "")]))]
        );
    }
}
