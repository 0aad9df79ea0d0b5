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

    private static readonly JsonSerializerOptions Format = new(ShopDocument.Json) { WriteIndented = false };

    /// <summary>Writes all of them, in the order in which they were added.</summary>
    /// <returns>The names of their pictures.</returns>
    public static async Task<IReadOnlySet<string>> Write(TinContext db, Stream stream, CancellationToken stop)
    {
        var (last, pictures) = (0, new HashSet<string>(StringComparer.Ordinal));
        while (await Next(db, last, stop) is { Count: > 0 } rows)
        {
            foreach (var row in rows)
            {
                await JsonSerializer.SerializeAsync(stream, Of(row), Format, stop);
                stream.WriteByte((byte)'\n');
                pictures.UnionWith(row.Page.Results.Select(r => r.Image?.Picture).OfType<string>());
            }

            last = rows[^1].Id;
        }

        return pictures;
    }

    /// <summary>Reads the file.</summary>
    /// <exception cref="InvalidInputException">A line is no recording, or beyond a bound.</exception>
    public static List<DocumentRecording> Read(Stream stream)
    {
        var recordings = new List<DocumentRecording>();
        var number = 0;
        using var reader = new StreamReader(stream, leaveOpen: true);
        while (reader.ReadLine() is { } line)
        {
            number++;
            if (line.Length == 0)
                continue;
            try
            {
                var recording = JsonSerializer.Deserialize<DocumentRecording>(line, Format) ?? throw new JsonException("it is null.");
                RequestValidation.ThrowIfOutOfBounds(recording);
                if (
                    recording.Page.Results.Count > PageReader.MostResults
                    || (recording.Kind == RecordingKind.Listing && recording.Page.Listing is null)
                )
                    throw new JsonException("it has too many results, or no listing.");
                recordings.Add(recording);
            }
            catch (Exception e) when (e is JsonException or InvalidOperationException)
            {
                throw new InvalidInputException([new("file", $"Line {number:#,0} of {FileName} can’t be read: {e.Message}")]);
            }
        }

        return recordings;
    }

    /// <summary>Those that the shop lacks.</summary>
    public static async Task<List<DocumentRecording>> Lacking(TinContext db, IReadOnlyList<DocumentRecording> given, CancellationToken stop)
    {
        if (given.Count == 0)
            return [];
        var there = (await db.Recordings.AsNoTracking().ToListAsync(stop)).Select(r => Identity(Of(r))).ToHashSet(StringComparer.Ordinal);
        return [.. given.Where(g => there.Add(Identity(g)))];
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

    private static string Identity(DocumentRecording recording) => JsonSerializer.Serialize(recording, Format);

    private static Task<List<RecordingRow>> Next(TinContext db, int last, CancellationToken stop) =>
        db.Recordings.AsNoTracking().Where(r => r.Id > last).OrderBy(r => r.Id).Take(AtOnce).ToListAsync(stop);

    private static DocumentRecording Of(RecordingRow row) => new(row.MarketId, row.Kind, row.Term, row.Key, row.Day, row.Source, row.Page);
}
