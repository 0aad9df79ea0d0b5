using TinRabbit.Server.Files.Tables;
using TinRabbit.Server.Listings;
using TinRabbit.Server.Shelf;

namespace TinRabbit.Server.Features.Dig;

/// <summary>An uploaded file of terms, before its import.</summary>
/// <param name="Id">Identifies it in later requests.</param>
/// <param name="Look">How it would be read.</param>
/// <param name="Rows">Its first rows, unchanged.</param>
/// <param name="Terms">The terms read from them.</param>
/// <param name="Bad">Rows that could not be read.</param>
public sealed record ImportView(
    string Id,
    string Name,
    long Bytes,
    TableLook Look,
    IReadOnlyList<IReadOnlyList<string>> Rows,
    IReadOnlyList<ImportedView> Terms,
    IReadOnlyList<BadRow> Bad
);

/// <summary>A term as it would be imported.</summary>
public sealed record ImportedView(
    int Row,
    string Text,
    long? Volume,
    long? Competition,
    long? TitlesHolding,
    decimal? ClickCost,
    IReadOnlyList<int>? Months,
    int? Popularity,
    long? Clicks,
    long? Orders,
    decimal? Sales
);

/// <summary>Another way to read an uploaded file: a complete description, or an encoding and a delimiter to guess the rest from.</summary>
public sealed record LookRequest(TableLook? Look, [MaxLength(40)] string? Encoding, [MaxLength(40)] string? Separator);

/// <summary>How far an import is; the last line says what it did.</summary>
/// <param name="Doing">The current step; null at the end.</param>
/// <param name="Share">How far, 0–1.</param>
/// <param name="Read">Rows read.</param>
/// <param name="Bad">Rows that could not be taken.</param>
/// <param name="Bounds">Cells with only a range, such as &lt; 10; imported as unknown.</param>
/// <param name="Count">Its result.</param>
/// <param name="BadRows">The first rows that could not be taken.</param>
/// <param name="Problem">Why nothing was imported; null unless it failed.</param>
public sealed record ImportPart(
    string? Doing,
    double Share,
    int Read,
    int Bad,
    int Bounds,
    ImportCount? Count,
    IReadOnlyList<BadRow>? BadRows,
    string? Problem
);

/// <summary>How many rows a file has, with its header.</summary>
/// <param name="More">Whether there are more: counting took too long.</param>
public sealed record RowCount(int Rows, bool More);

/// <summary>An import that was run.</summary>
/// <param name="Source">The source of its readings.</param>
/// <param name="Rows">Rows with a term.</param>
public sealed record FinishedImport(int Id, string Source, DateTime At, long Rows);

/// <summary>An import to run.</summary>
/// <param name="Source">The source named in its readings.</param>
public sealed record RunRequest(TableLook Look, [MaxLength(Bounds.NameLength)] string? Source);

internal static class ImportApi
{
    private const int RowsShown = 8;
    private const int ImportsShown = 50;

    public static void MapImport(this IEndpointRouteBuilder app)
    {
        var api = app.MapGroup("/api/markets/{marketId}/imports");
        api.MapPost("/", BeginImport).TakesFile().ProducesProblem(413).DisableRequestTimeout();
        api.MapPost("/{id}/look", LookAtImport);
        api.MapPost("/{id}/run", RunImport).Produces<ImportPart>(200, "application/x-ndjson").DisableRequestTimeout();
        api.MapGet("/{id}/bad.csv", GetBadRows);
        api.MapPost("/{id}/rows", CountImportRows);
        api.MapDelete("/{id}", ForgetImport);
        api.MapGet("/", GetImports);
        api.MapPut("/{import:int}/source", RenameImport);
        api.MapPost("/{import:int}/undo", UndoImport).RetriesRaces().DisableRequestTimeout();
    }

    private static async Task<IResult> BeginImport(
        string marketId,
        string? name,
        DataFolder data,
        TimeProvider clock,
        HttpRequest request,
        CancellationToken stop
    )
    {
        var view = await ImportFiles.Store(
            request,
            data,
            clock.GetUtcNow().UtcDateTime,
            name is { Length: > 0 } ? name : "pasted",
            (id, file) => Task.FromResult(View(id, file, TableGuess.Of(file), stop)),
            stop
        );
        return view is null ? ImportFiles.TooLarge() : TypedResults.Ok(view);
    }

    private static ImportView LookAtImport(string marketId, string id, LookRequest request, DataFolder data, CancellationToken stop)
    {
        var file = ImportFiles.Find(data, id) ?? throw new NotThereException();
        var look = request.Look ?? TableGuess.Of(file, request.Encoding, request.Separator);
        CheckLook(file, look);
        return View(id, file, look, stop);
    }

    private static RowCount CountImportRows(string marketId, string id, LookRequest request, DataFolder data, CancellationToken stop)
    {
        var file = ImportFiles.Find(data, id) ?? throw new NotThereException();
        var look = request.Look ?? TableGuess.Of(file, request.Encoding, request.Separator);
        TableCheck.CheckFits(file, look);
        var (rows, more) = TableRows.Count(file, look, stop);
        return new(rows, more);
    }

    private static async Task<List<FinishedImport>> GetImports(string marketId, TinContext db, CancellationToken stop) =>
        await db
            .Imports.AsNoTracking()
            .Where(i => i.MarketId == marketId && i.Done)
            .OrderByDescending(i => i.Id)
            .Take(ImportsShown)
            .Select(i => new FinishedImport(i.Id, i.Source, i.At, i.Rows))
            .ToListAsync(stop);

    private static async Task<Changed> RenameImport(
        string marketId,
        int import,
        NewName request,
        TinContext db,
        ChangeLog changes,
        CancellationToken stop
    )
    {
        var row = await db.Imports.FirstOrDefaultAsync(i => i.Id == import && i.MarketId == marketId && i.Done, stop).OrNotThere();
        var (before, name, undo) = (row.Source, request.Checked(), RenameRow.Of(row, import));
        row.Rename(name);
        return await changes.Save(ChangeMessages.Renamed("import", before, name), new(Screen.Dig), [undo], stop);
    }

    private static async Task<Changed> UndoImport(
        string marketId,
        int import,
        TinContext db,
        Shelves shelves,
        ChangeLog changes,
        TimeProvider clock,
        CancellationToken stop
    )
    {
        var row = await db
            .Imports.AsNoTracking()
            .FirstOrDefaultAsync(i => i.Id == import && i.MarketId == marketId && i.Done, stop)
            .OrNotThere();
        var noted = (
            await db.Changes.AsNoTracking().Where(c => c.Screen == Screen.Dig && c.UndoneAt == null).ToListAsync(stop)
        ).FirstOrDefault(c => c.Steps.Contains(new RemoveImport(import)));
        if (noted is not null)
            await changes.Undo(new(), noted.Id, isSure: true, stop);
        else if (await shelves.Withdraw(db, import, clock.GetUtcNow().UtcDateTime))
            await changes.Save(DigMessages.RemovedImport(row.Source), new(Screen.Dig), [new ReturnImport(import)], stop);
        return new(DigMessages.RemovedImport(row.Source));
    }

    private static NdJson<ImportPart> RunImport(
        string marketId,
        string id,
        RunRequest request,
        TinContext db,
        WriteGate writes,
        Shelves shelves,
        ChangeLog changes,
        DataFolder data,
        CancellationToken stop
    )
    {
        var file = ImportFiles.Find(data, id) ?? throw new NotThereException();
        CheckLook(file, request.Look);
        return new(ImportRun.Run(marketId, file, request, db, writes, shelves, changes, stop));
    }

    private static FileStreamHttpResult GetBadRows(string marketId, string id, DataFolder data) =>
        ImportFiles.Find(data, id) is { } file && File.Exists(file + ".bad")
            ? TypedResults.File(File.OpenRead(file + ".bad"), "text/csv; charset=utf-8", "rows not imported.csv")
            : throw new NotThereException();

    private static NoContent ForgetImport(string marketId, string id, DataFolder data)
    {
        if (ImportFiles.Find(data, id) is { } file)
            ImportFiles.Remove(file);
        return TypedResults.NoContent();
    }

    private static void CheckLook(string file, TableLook look)
    {
        TableCheck.Check(look);
        TableCheck.CheckFits(file, look);
    }

    private static ImportView View(string id, string file, TableLook look, CancellationToken stop)
    {
        var bad = new List<BadRow>();
        var terms = look.Columns.Any(c => c.Role == ColumnRole.Term)
            ? TermTables.Read(file, look, bad.Add, most: Bounds.ImportRowsInspected, stop: stop).Take(RowsShown).ToList()
            : [];
        return new(
            id,
            File.ReadAllText(file + ".name"),
            new FileInfo(file).Length,
            look,
            TableRows.First(file, look, RowsShown),
            [
                .. terms.Select(t => new ImportedView(
                    t.Row,
                    t.Text,
                    t.Volume,
                    t.Competition,
                    t.TitlesHolding,
                    t.ClickCost,
                    t.Months,
                    t.Popularity,
                    t.Clicks,
                    t.Orders,
                    t.Sales
                )),
            ],
            [.. bad.Take(RowsShown)]
        );
    }
}
