using TinRabbit.Server.Drops;
using TinRabbit.Server.Files.Tables;
using TinRabbit.Server.Markets;
using TinRabbit.Server.Shelf;

namespace TinRabbit.Server.Features.Dig;

/// <summary>A table or list of terms, with whatever numbers it has: they join those that are known, number by number.</summary>
internal sealed class TermsDrop(TinContext db, IMarket market, Shelves shelves) : IDropKind, IHasColumns
{
    // A longer one is imported with its own dialog, which shows how far it has come and can be stopped.
    private const int MostRows = 20_000;

    private static readonly IReadOnlyList<DropKindName> Roles =
    [
        new("", "Not used"),
        .. Enum.GetValues<ColumnRole>()
            .Where(r => r is not (ColumnRole.Ignore or ColumnRole.Month))
            .Select(r => new DropKindName(r.ToString(), DigMessages.NameOf(r))),
    ];

    public string Id => "terms";

    public string Name => "Terms";

    public double? Fits(DropContent content)
    {
        if (content.Table is { } table && table.Look.Columns.FirstOrDefault(c => c.Role == ColumnRole.Term) is not null)
            return table.Look.Columns.Any(c => c.Role is not (ColumnRole.Term or ColumnRole.Ignore)) ? 0.7 : 0.5;
        return content.Text is { } text && !content.IsHtml && PastedTerms.Read(text).Terms.Count > 0 ? 0.55 : null;
    }

    public IReadOnlyList<DropColumn>? ColumnsOf(DroppedThing thing) =>
        thing.Content.Table is { } table && LookOf(table, thing.Choice) is var look
            ?
            [
                .. TableRoles
                    .Shown(table, [.. look.Columns.Select(RoleOf)], Roles)
                    .Where((_, i) => look.Columns[i].Role != ColumnRole.Month),
            ]
            : null;

    public Task<DropShown> Look(DroppedThing thing, CancellationToken stop) => Task.FromResult(Shown(thing, stop));

    public async Task<IReadOnlyList<IUndoStep>> Add(IReadOnlyList<DroppedThing> things, CancellationToken stop)
    {
        var steps = new List<IUndoStep>();
        foreach (var thing in things)
        {
            var (found, _) = Read(thing, stop);
            var before = (
                await Shelves.TermsOf(db, thing.Market.Id, [.. found.Select(f => Tokens.Key(f.Text)).Distinct()], stop)
            ).ToDictionary(t => t.Key, t => t.Value.ReadingId);
            var terms = await shelves.Save(db, thing.Market.Id, found, stop);
            steps.AddRange(RemoveReadings.Of(thing.Market.Id, before, terms));
        }

        return steps;
    }

    private DropShown Shown(DroppedThing thing, CancellationToken stop)
    {
        var table = thing.Content.Table;
        if (table is not null && TableRows.Count(thing.Content.Path, table.Look, stop) is var (rows, more) && (more || rows > MostRows))
            return new(
                $"A table of {rows:#,0} terms{(more ? " or more" : "")}",
                [],
                [],
                [],
                rows,
                [],
                $"A table of more than {MostRows:#,0} rows is imported in its own dialog.",
                Dialog: "terms"
            );
        var (found, bad) = Read(thing, stop);
        return new(
            found.Count == 1 ? "1 term" : $"{found.Count:#,0} terms",
            table is null
                ? []
                :
                [
                    .. LookOf(table, thing.Choice)
                        .Columns.Where(c => c.Role is not (ColumnRole.Ignore or ColumnRole.Month))
                        .Select(c => new DropFact(DigMessages.NameOf(c.Role), c.Head.Length > 0 ? $"from “{c.Head}”" : "")),
                ],
            ["Term", "Searches/mo", "Competing listings"],
            [
                .. found
                    .Take(DropShown.MostRows)
                    .Select(f => new DropRow([f.Text, Written(f.Reading?.Volume), Written(f.Reading?.Competition)])),
            ],
            found.Count,
            [.. bad.Take(20)],
            found.Count == 0 ? "There is no term in it." : null,
            Columns: ColumnsOf(thing),
            HasDay: true
        );
    }

    private (List<Found> Found, List<string> Bad) Read(DroppedThing thing, CancellationToken stop)
    {
        var (at, source) = (market.TimeOf(thing.Day), thing.Content.Source);
        if (thing.Content.Table is not { } table)
        {
            var (pasted, wrong) = PastedTerms.Read(thing.Content.Text ?? "");
            return (
                pasted.ConvertAll(p => new Found(
                    p.Text,
                    p is { Volume: null, Competition: null } ? null : Reading(p.Volume, p.Competition)
                )),
                wrong.ConvertAll(b => $"Line {b.Line}: {b.Reason}")
            );
        }

        var look = LookOf(table, thing.Choice);
        TableCheck.Check(look);
        var bad = new List<string>();
        var from = TermTables.FirstMonth(look);
        var found = TermTables
            .Read(thing.Content.Path, look, b => bad.Add($"Row {b.Row}: {b.Reason}"), most: MostRows + 1, stop: stop)
            .Select(t => new Found(
                t.Text,
                !t.IsMeasured
                    ? null
                    : new()
                    {
                        Volume = t.Volume,
                        VolumeBelow = t.VolumeBelow,
                        Competition = t.Competition,
                        TitlesHolding = t.TitlesHolding,
                        ClickCost = t.ClickCost,
                        Months = t.Months,
                        From = t.Months is null ? null : from,
                        Popularity = t.Popularity,
                        Clicks = t.Clicks,
                        Orders = t.Orders,
                        Sales = t.Sales,
                        Source = source,
                        TakenAt = at,
                    }
            ))
            .ToList();
        return (found, bad);

        ReadingRow Reading(long? volume, long? competition) =>
            new()
            {
                Volume = volume,
                Competition = competition,
                Source = source,
                TakenAt = at,
            };
    }

    private static TableLook LookOf(DropTable table, DropChoice choice)
    {
        var roles = TableRoles.Of(table, choice, i => i < table.Look.Columns.Count ? RoleOf(table.Look.Columns[i]) : "");
        return table.Look with
        {
            Columns =
            [
                .. table.Look.Columns.Select(
                    (c, i) =>
                        c.Role == ColumnRole.Month ? c
                        : Enum.TryParse<ColumnRole>(roles[i], out var role) ? c with { Role = role }
                        : c with { Role = ColumnRole.Ignore }
                ),
            ],
        };
    }

    private static string RoleOf(TableColumn column) => column.Role == ColumnRole.Ignore ? "" : column.Role.ToString();

    private static string Written(long? number) => number is { } n ? $"{n:#,0}" : "";
}
