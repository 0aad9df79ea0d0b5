using TinRabbit.Server.Drops;
using TinRabbit.Server.Files.Tables;
using TinRabbit.Server.Journal;
using TinRabbit.Server.Recordings;

namespace TinRabbit.Server.Features.Watch;

/// <summary>A table of daily figures, of one listing or of several. What a column counts is asked where its name does not say it: visits are not clicks.</summary>
internal sealed class FiguresDrop(TinContext db, IMarket market) : IDropKind, IHasColumns
{
    private static readonly IReadOnlyList<DropKindName> Roles =
    [
        new("", "Not used"),
        new("date", "Date"),
        new("listing", "Listing"),
        new("views", "Views"),
        new("clicks", "Clicks"),
        new("sales", "Sales"),
    ];

    private static readonly string[] Counts = ["views", "clicks", "sales"];

    public string Id => "figures";

    public string Name => "Daily figures";

    public double? Fits(DropContent content) =>
        content.Table is not { } table || Guess(table) is not { } roles || !roles.Contains("date") ? null
        : table.Find("term", "keyword", "query", "review", "rank", "position") >= 0 ? 0.2
        : roles.Any(r => Counts.Contains(r)) ? 0.85
        : Enumerable.Range(0, table.Width).Any(i => roles[i].Length == 0 && table.Most(i, DropTable.IsNumber)) ? 0.5
        : null;

    public IReadOnlyList<DropColumn>? ColumnsOf(DroppedThing thing) =>
        thing.Content.Table is { } table ? TableRoles.Shown(table, RolesOf(table, thing.Choice), Roles) : null;

    public async Task<DropShown> Look(DroppedThing thing, CancellationToken stop)
    {
        var table = thing.Content.Table!;
        var roles = RolesOf(table, thing.Choice);
        var unused = Enumerable
            .Range(0, table.Width)
            .Where(i => roles[i].Length == 0 && table.Heads[i].Length > 0)
            .Select(i => $"“{table.Heads[i]}”")
            .ToList();
        if (!roles.Any(r => Counts.Contains(r)))
            throw HeadedRow.Wrong("What do the columns count? Choose views, clicks or sales below.");
        var read = Read(thing, stop);
        var (known, unknown) = await Sorted(read, thing, stop);
        var days = read.Select(r => r.Day.Day).Distinct().ToList();
        var facts = new List<DropFact> { new("Days", $"{days.Count:#,0}, {days.Min():yyyy-MM-dd} to {days.Max():yyyy-MM-dd}") };
        facts.AddRange(
            known.Where(k => k.Name.Length > 0).Take(8).Select(k => new DropFact("Listing", $"{k.Name}: {k.Days.Count:#,0} days"))
        );
        var unsure = new List<string>();
        if (unused.Count > 0)
            unsure.Add($"Not used: {string.Join(", ", unused)}.");
        if (unknown.Count > 0)
            unsure.Add($"Left out, as no listing of yours has this name: {string.Join(", ", unknown.Take(8).Select(u => $"“{u}”"))}.");
        var (heads, rows) = TableRoles.Rows(table, roles, Roles);
        var listing = await thing.Listing(db, stop);
        return new(
            known.Count > 1
                ? $"Daily figures of {known.Count:#,0} listings"
                : $"Daily figures of {days.Count:#,0} {(days.Count == 1 ? "day" : "days")}",
            facts,
            heads,
            rows,
            read.Count,
            unsure,
            known.Count > 0 ? null
                : unknown.Count > 0
                    ? "No listing of yours has one of the names in it. Choose which column names the listing, or the listing itself."
                : "Which listing are they of? Choose it.",
            ListingId: roles.Contains("listing") ? null : listing?.Id,
            NeedsListing: !roles.Contains("listing"),
            Columns: ColumnsOf(thing)
        );
    }

    public async Task<IReadOnlyList<IUndoStep>> Add(IReadOnlyList<DroppedThing> things, CancellationToken stop)
    {
        var steps = new List<IUndoStep>();
        var added = new List<FigureRow>();
        foreach (var thing in things)
        foreach (var (listing, _, days) in (await Sorted(Read(thing, stop), thing, stop)).Known)
        {
            steps.Add(await WatchBefore.Of(db, listing, thing.Market.Id, stop));
            await db.WatchOf(listing, thing.Market.Id, stop);
            added.AddRange(days.Select(d => FigureRow.Of(listing, thing.Market.Id, d, thing.Content.Source)));
        }

        db.Figures.AddRange(added);
        await db.SaveChangesAsync(stop);
        return [RemoveRows.Of<FigureRow>(added.Select(r => r.Id)), .. steps];
    }

    private async Task<(List<(int Listing, string Name, List<DayFigures> Days)> Known, List<string> Unknown)> Sorted(
        List<(string Listing, DayFigures Day)> read,
        DroppedThing thing,
        CancellationToken stop
    )
    {
        var (known, unknown) = (new List<(int, string, List<DayFigures>)>(), new List<string>());
        var own = await OwnListings.Load(db, thing.Market.PlatformId, stop);
        foreach (var group in read.GroupBy(r => r.Listing))
        {
            var listing =
                group.Key.Length == 0
                    ? await thing.Listing(db, stop) is { } chosen
                        ? (chosen.Id, "")
                        : ((int, string)?)null
                    : own.FirstOrDefault(o => o.IsNamed(group.Key)) is { } found
                        ? (found.Id, found.Name)
                        : null;
            if (listing is var (number, name))
                known.Add((number, name, [.. group.Select(g => g.Day)]));
            else if (group.Key.Length > 0)
                unknown.Add(group.Key);
        }

        return (known, unknown);
    }

    private List<(string Listing, DayFigures Day)> Read(DroppedThing thing, CancellationToken stop)
    {
        var table = thing.Content.Table!;
        var roles = RolesOf(table, thing.Choice);
        if (!roles.Contains("date"))
            throw HeadedRow.Wrong("Which column holds the dates? Choose it below.");
        var (days, seen) = (new List<(string, DayFigures)>(), new HashSet<(string, DateOnly)>());
        foreach (var row in HeadedRow.Under(thing.Content.Path, table.Look, table.HasHead, roles, Bounds.WatchRows, stop))
        {
            // A line of totals at the end has no date.
            if (!row["date"].Any(char.IsDigit) || row.DayOf(market.LastDay, "date") is not { } day)
                continue;
            var listing = row["listing"];
            if (!seen.Add((listing, day)))
                throw HeadedRow.Wrong(
                    $"Row {row.Number}: {day:yyyy-MM-dd} is there twice{(listing.Length > 0 ? $" for “{listing}”" : "")}."
                );
            days.Add((listing, new(day, row.CountOf("views"), row.CountOf("clicks"), row.CountOf("sales"))));
        }

        return days;
    }

    private static string[] RolesOf(DropTable table, DropChoice choice)
    {
        var guess = Guess(table);
        return TableRoles.Of(table, choice, i => guess?[i] ?? "");
    }

    private static string[]? Guess(DropTable table)
    {
        var roles = new string[table.Width];
        Array.Fill(roles, "");
        var date = Enumerable.Range(0, table.Width).FirstOrDefault(i => table.Most(i, DropTable.IsDate), -1);
        if (date < 0)
            return null;
        roles[date] = "date";
        Take("views", "view", "impression");
        Take("clicks", "click");
        Take("sales", "sale", "order", "booking", "night", "unit sold", "purchase");
        var listing = table.Find("listing", "item", "product", "title", "sku", "artikel", "produkt", "producto");
        if (listing >= 0 && roles[listing].Length == 0)
            roles[listing] = "listing";
        return roles;

        void Take(string role, params string[] names)
        {
            if (table.Find(names) is >= 0 and var i && roles[i].Length == 0)
                roles[i] = role;
        }
    }
}
