using System.Collections.Concurrent;
using System.Text;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.Http.Json;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.Options;
using TinRabbit.Core.Platforms;
using TinRabbit.Market;
using TinRabbit.Server.Formats;
using TinRabbit.Server.Storage;

namespace TinRabbit.Server.Dig;

/// <summary>A file of terms that waits to be imported.</summary>
/// <param name="Id">Names it in what follows.</param>
/// <param name="Look">How it would be read.</param>
/// <param name="Rows">Its first rows as they stand.</param>
/// <param name="Terms">What would be made of them.</param>
/// <param name="Bad">Which of them could not be taken.</param>
public sealed record ImportView(string Id, string Name, long Bytes, TableLook Look, IReadOnlyList<IReadOnlyList<string>> Rows, IReadOnlyList<ImportedView> Terms, IReadOnlyList<BadRow> Bad);

/// <summary>A term as it would be imported.</summary>
public sealed record ImportedView(int Row, string Text, long? Volume, long? Competition, long? TitlesHolding, decimal? ClickCost, IReadOnlyList<int>? Months);

/// <summary>Another way to read a waiting file: a whole look, or an encoding and a separator to guess the rest from.</summary>
public sealed record LookRequest(TableLook? Look, string? Encoding, string? Separator);

/// <summary>How far an import is; the last line says what it did.</summary>
/// <param name="Doing">What is being done; null when all is done.</param>
/// <param name="Share">How far, 0–1.</param>
/// <param name="Read">Rows read.</param>
/// <param name="Bad">Rows that could not be taken.</param>
/// <param name="Bounds">Cells that gave only a bound, such as &lt; 10, and stay unknown.</param>
/// <param name="Count">What it did.</param>
/// <param name="BadRows">The first rows that could not be taken.</param>
/// <param name="Problem">Why nothing was taken; null unless it failed.</param>
public sealed record ImportPart(string? Doing, double Share, int Read, int Bad, int Bounds, ImportCount? Count, IReadOnlyList<BadRow>? BadRows, string? Problem);

/// <summary>An import to run.</summary>
/// <param name="Source">What its readings are said to come from.</param>
public sealed record RunRequest(TableLook Look, string? Source);

/// <summary>The folder that holds everything of the shop.</summary>
public sealed record DataFolder(string Path);

internal static class ImportApi
{
    private const int RowsShown = 8;
    private const int BadShown = 100;
    private const int BatchSize = 1024;
    private const int BatchesAhead = 8;
    private const long MostBytes = 2L << 30;

    public static void MapImport(this IEndpointRouteBuilder app)
    {
        var api = app.MapGroup("/api/markets/{marketId}/imports").WithTags("Import");

        api.MapPost("/", async Task<Results<Ok<ImportView>, NotFound>> (string marketId, string? name, IMarket market, DataFolder data, HttpRequest request, HttpContext http, CancellationToken stop) =>
        {
            if (market.Places.All(p => p.Id != marketId))
                return TypedResults.NotFound();
            if (http.Features.Get<Microsoft.AspNetCore.Http.Features.IHttpMaxRequestBodySizeFeature>() is { IsReadOnly: false } size)
                size.MaxRequestBodySize = MostBytes;
            var id = Guid.NewGuid().ToString("N");
            var file = FileOf(data, id);
            Directory.CreateDirectory(Path.GetDirectoryName(file)!);
            Tidy(data);
            try
            {
                await using (var stream = File.Create(file))
                    await request.Body.CopyToAsync(stream, stop);
                await File.WriteAllTextAsync(file + ".name", name is { Length: > 0 } ? name : "pasted", stop);
                return TypedResults.Ok(View(id, file, TermTables.Guess(file)));
            }
            catch
            {
                Forget(file);
                throw;
            }
        }).WithName("BeginImport").Accepts<string>("*/*").ProducesValidationProblem();

        api.MapPost("/{id}/look", Results<Ok<ImportView>, NotFound> (string id, LookRequest request, DataFolder data) =>
        {
            if (Known(data, id) is not { } file)
                return TypedResults.NotFound();
            var look = request.Look ?? TermTables.Guess(file, request.Encoding, request.Separator);
            if (request.Look is not null)
                TermTables.Check(look);
            return TypedResults.Ok(View(id, file, look));
        }).WithName("LookAtImport").ProducesValidationProblem();

        api.MapPost("/{id}/run", async Task<IResult> (string marketId, string id, RunRequest request, TinContext db, Shelves shelves, DataFolder data, IOptions<JsonOptions> json, HttpContext http, CancellationToken stop) =>
        {
            if (Known(data, id) is not { } file)
                return TypedResults.NotFound();
            TermTables.Check(request.Look);
            http.Response.ContentType = "application/x-ndjson";
            await foreach (var part in Run(marketId, file, request, db, shelves, stop))
                await http.Response.WriteLine(part, json.Value.SerializerOptions, stop);
            return Results.Empty;
        }).WithName("RunImport").Produces<ImportPart>(200, "application/x-ndjson").ProducesValidationProblem();

        api.MapGet("/{id}/bad.csv", Results<FileStreamHttpResult, NotFound> (string id, DataFolder data) =>
            Known(data, id) is { } file && File.Exists(file + ".bad") ? TypedResults.File(File.OpenRead(file + ".bad"), "text/csv; charset=utf-8", "rows not taken.csv") : TypedResults.NotFound()).WithName("GetBadRows");

        api.MapDelete("/{id}", (string id, DataFolder data) =>
        {
            if (Known(data, id) is { } file)
                Forget(file);
            return TypedResults.NoContent();
        }).WithName("ForgetImport");
    }

    private static async IAsyncEnumerable<ImportPart> Run(string marketId, string file, RunRequest request, TinContext db, Shelves shelves, [System.Runtime.CompilerServices.EnumeratorCancellation] CancellationToken stop)
    {
        var size = (double)new FileInfo(file).Length;
        var (read, bounds, bad, at) = (0, 0, 0, 0L);
        var firstBad = new List<BadRow>();
        var source = request.Source?.Trim() is { Length: > 0 } named ? named : Path.GetFileNameWithoutExtension(await File.ReadAllTextAsync(file + ".name", stop));
        using var import = new TermImport(db.Database.GetConnectionString()!);
        await using (var badFile = new StreamWriter(file + ".bad", append: false, new UTF8Encoding(true)))
        {
            await badFile.WriteAsync(TermFiles.BadHead);
            // One thread reads, the other lays aside.
            using var batches = new BlockingCollection<TableTerm[]>(BatchesAhead);
            var reading = Task.Run(() =>
            {
                try
                {
                    foreach (var batch in TermTables.Read(file, request.Look, Bad, bytes => at = bytes).Chunk(BatchSize))
                        batches.Add(batch, stop);
                }
                finally
                {
                    batches.CompleteAdding();
                }
            }, stop);
            var clock = System.Diagnostics.Stopwatch.StartNew();
            var problem = "";
            foreach (var batch in batches.GetConsumingEnumerable(stop))
            {
                foreach (var t in batch)
                {
                    import.Add(new(t.Text, t.Key, t.Volume, t.Competition, t.TitlesHolding, t.ClickCost, t.Months));
                    bounds += t.Bounds;
                }

                read += batch.Length;
                if (clock.ElapsedMilliseconds < 200)
                    continue;
                clock.Restart();
                yield return new("Reading rows", 0.6 * at / size, read, bad, bounds, null, null, null);
            }

            try
            {
                await reading;
            }
            catch (FormatProblems wrong)
            {
                problem = wrong.Problems[0].Message;
            }

            if (problem.Length > 0)
            {
                yield return new(null, 0, read, bad, bounds, null, firstBad, problem + " Nothing was taken.");
                yield break;
            }

            void Bad(BadRow row)
            {
                bad++;
                badFile.Write(TermFiles.BadLine(row));
                if (firstBad.Count < BadShown)
                    firstBad.Add(row);
            }
        }

        yield return new("Putting them on the shelf", 0.65, read, bad, bounds, null, null, null);
        var count = await Task.Run(() => import.Finish(marketId, source, TermTables.FirstMonth(request.Look), DateTime.UtcNow, stop), stop);
        if (count.New + count.Changed > 0)
        {
            shelves.Forget(marketId);
            yield return new("Reading the shelf anew", 0.9, read, bad, bounds, null, null, null);
            await Shelves.KeepNorm(db, marketId, await shelves.Ask(db, marketId, s => s.Renorm(), CancellationToken.None), CancellationToken.None);
        }

        yield return new(null, 1, read, bad, bounds, count, firstBad, null);
    }

    private static ImportView View(string id, string file, TableLook look)
    {
        var bad = new List<BadRow>();
        var terms = look.Columns.Any(c => c.Role == ColumnRole.Term) ? TermTables.Read(file, look, bad.Add).Take(RowsShown).ToList() : [];
        return new(id, File.ReadAllText(file + ".name"), new FileInfo(file).Length, look, TermTables.First(file, look, RowsShown),
            [.. terms.Select(t => new ImportedView(t.Row, t.Text, t.Volume, t.Competition, t.TitlesHolding, t.ClickCost, t.Months))], [.. bad.Take(RowsShown)]);
    }

    private static string FileOf(DataFolder data, string id) => Path.Combine(data.Path, "imports", id);

    private static string? Known(DataFolder data, string id) => Guid.TryParseExact(id, "N", out _) && File.Exists(FileOf(data, id)) ? FileOf(data, id) : null;

    private static void Forget(string file)
    {
        foreach (var gone in new[] { file, file + ".name", file + ".bad" })
            File.Delete(gone);
    }

    // What was begun and left a day ago is not wanted any more.
    private static void Tidy(DataFolder data)
    {
        foreach (var old in new DirectoryInfo(Path.Combine(data.Path, "imports")).EnumerateFiles().Where(f => f.LastWriteTimeUtc < DateTime.UtcNow.AddDays(-1)))
            old.Delete();
    }
}
