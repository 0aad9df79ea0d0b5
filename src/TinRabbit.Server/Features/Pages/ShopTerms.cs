using TinRabbit.Server.Files.Documents;
using TinRabbit.Server.Shelf;

namespace TinRabbit.Server.Features.Pages;

/// <summary>The shelves of a shop as a file: one term a line, as JSON.</summary>
internal static class ShopTerms
{
    /// <summary>What the file is called in the ZIP of a shop.</summary>
    public const string FileName = "terms.ndjson";

    private const int AtOnce = 2_000;

    /// <summary>Writes every term with its readings, in the order of markets and terms.</summary>
    public static async Task Write(TinContext db, Stream stream, CancellationToken stop)
    {
        foreach (var market in await db.Terms.Select(t => t.MarketId).Distinct().OrderBy(m => m).ToListAsync(stop))
        {
            var last = "";
            while (await Next(db, market, last, stop) is { Count: > 0 } terms)
            {
                var ids = terms.Select(t => t.Id).ToList();
                var readings = (
                    await db.Readings.AsNoTracking().Where(r => ids.Contains(r.TermId)).OrderBy(r => r.Id).ToListAsync(stop)
                ).ToLookup(r => r.TermId);
                foreach (var term in terms)
                    await NdJsonFiles.Write(stream, Of(term, [.. readings[term.Id]]), stop);

                last = terms[^1].Key;
            }
        }
    }

    /// <summary>Reads the file.</summary>
    /// <exception cref="InvalidInputException">A line is no term, or beyond a bound.</exception>
    public static List<DocumentTerm> Read(Stream stream) =>
        NdJsonFiles.Read<DocumentTerm>(stream, FileName, t => (t.Readings ?? []).Any(IsImpossible) ? "a number is below 0." : null);

    private static bool IsImpossible(DocumentReading r) =>
        r.Volume < 0
        || r.VolumeBelow < 0
        || r.Competition < 0
        || r.TitlesHolding < 0
        || r.ClickCost < 0
        || r.Popularity < 1
        || r.Clicks < 0
        || r.Orders < 0
        || r.Sales < 0
        || r.Months?.Any(m => m < 0) == true;

#pragma warning disable CA1309 // SQLite compares by bytes, and so does this in its SQL.
    private static Task<List<TermRow>> Next(TinContext db, string market, string last, CancellationToken stop) =>
        db
            .Terms.AsNoTracking()
            .Where(t => t.MarketId == market && string.Compare(t.Key, last) > 0)
            .OrderBy(t => t.Key)
            .Take(AtOnce)
            .ToListAsync(stop);
#pragma warning restore CA1309

    private static DocumentTerm Of(TermRow term, List<ReadingRow> readings) =>
        new(
            term.MarketId,
            term.Text,
            [
                .. readings.Select(r => new DocumentReading(
                    r.Source,
                    r.TakenAt,
                    r.Volume,
                    r.VolumeBelow,
                    r.Competition,
                    r.TitlesHolding,
                    r.ClickCost,
                    r.Months,
                    r.From,
                    r.Kept,
                    r.Popularity,
                    r.Clicks,
                    r.Orders,
                    r.Sales
                )),
            ],
            readings.FindIndex(r => r.Id == term.ReadingId) is >= 0 and var place ? place : null
        );
}
