using TinRabbit.Server.Files.Documents;
using TinRabbit.Server.Files.Html.Reading;
using TinRabbit.Server.Recordings;

namespace TinRabbit.Server.Features.Pages;

/// <summary>What the seller brought in of markets, as a file: one page a line, as JSON; and back in, what the shop lacks.</summary>
internal static class ShopRecordings
{
    /// <summary>What the file is called in the ZIP of a shop.</summary>
    public const string FileName = "recordings.ndjson";

    /// <summary>What names them in the choice of what to import.</summary>
    public const string Key = "recordings";

    private const int AtOnce = 100;

    /// <summary>Writes all of them, in the order in which they were added.</summary>
    /// <returns>The names of their pictures.</returns>
    public static async Task<IReadOnlySet<string>> Write(TinContext db, Stream stream, CancellationToken stop)
    {
        var (last, pictures) = (0, new HashSet<string>(StringComparer.Ordinal));
        while (await Next(db, last, stop) is { Count: > 0 } rows)
        {
            foreach (var row in rows)
            {
                await NdJsonFiles.Write(stream, Of(row), stop);
                pictures.UnionWith(row.Page.Results.Select(r => r.Image?.Picture).OfType<string>());
            }

            last = rows[^1].Id;
        }

        return pictures;
    }

    /// <summary>Reads the file.</summary>
    /// <exception cref="InvalidInputException">A line is no recording, or beyond a bound.</exception>
    public static List<DocumentRecording> Read(Stream stream) =>
        NdJsonFiles.Read<DocumentRecording>(
            stream,
            FileName,
            r =>
                r.Page.Results.Count > PageReader.MostResults || (r.Kind == RecordingKind.Listing && r.Page.Listing is null)
                    ? "it has too many results, or no listing."
                    : null
        );

    /// <summary>Those that the shop lacks.</summary>
    public static async Task<List<DocumentRecording>> Lacking(TinContext db, IReadOnlyList<DocumentRecording> given, CancellationToken stop)
    {
        if (given.Count == 0)
            return [];
        var there = (await db.Recordings.AsNoTracking().ToListAsync(stop))
            .Select(r => NdJsonFiles.LineOf(Of(r)))
            .ToHashSet(StringComparer.Ordinal);
        return [.. given.Where(g => there.Add(NdJsonFiles.LineOf(g)))];
    }

    /// <summary>Adds them; the caller's transaction commits.</summary>
    /// <returns>What takes them back.</returns>
    public static async Task<IReadOnlyList<IUndoStep>> Add(TinContext db, IReadOnlyList<DocumentRecording> lacking, CancellationToken stop)
    {
        List<RecordingRow> rows =
        [
            .. lacking.Select(l => new RecordingRow
            {
                MarketId = l.Market,
                Kind = l.Kind,
                Term = l.Term,
                Key = l.Key,
                Day = l.Day,
                Source = l.Source,
                Page = l.Page,
            }),
        ];
        db.Recordings.AddRange(rows);
        await db.SaveChangesAsync(stop);
        return rows.Count == 0 ? [] : [RemoveRows.Of<RecordingRow>(rows.Select(r => r.Id))];
    }

    private static Task<List<RecordingRow>> Next(TinContext db, int last, CancellationToken stop) =>
        db.Recordings.AsNoTracking().Where(r => r.Id > last).OrderBy(r => r.Id).Take(AtOnce).ToListAsync(stop);

    private static DocumentRecording Of(RecordingRow row) => new(row.MarketId, row.Kind, row.Term, row.Key, row.Day, row.Source, row.Page);
}
