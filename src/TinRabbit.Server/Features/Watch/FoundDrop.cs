using TinRabbit.Server.Drops;
using TinRabbit.Server.Files.Tables;
using TinRabbit.Server.Journal;

namespace TinRabbit.Server.Features.Watch;

/// <summary>A table of terms with the ranks that somebody found.</summary>
internal sealed class FoundDrop(TinContext db, IMarket market) : IDropKind
{
    public string Id => "found";

    public string Name => "Ranks";

    public double? Fits(DropContent content) =>
        content.Table is not { } table || table.Find("term", "keyword", "query", "search") < 0 ? null
        : table.Find("popularity", "volume", "search volume", "monthly") >= 0 ? 0.3
        : table.Find("rank", "position", "found") >= 0 ? 0.85
        : null;

    public async Task<DropShown> Look(DroppedThing thing, CancellationToken stop)
    {
        var rows = CheckTables.Read(thing.Content.Path, market.LastDay, stop);
        var listing = await thing.Listing(db, stop);
        return new(
            rows.Count == 1 ? "The rank of 1 term" : $"The ranks of {rows.Count:#,0} terms",
            [new("Found", $"{rows.Count(r => r.Found):#,0} of {rows.Count:#,0}")],
            ["Term", "Rank", "Date"],
            [
                .. rows.Take(DropShown.MostRows)
                    .Select(r => new DropRow([
                        r.Term,
                        r.Rank is { } rank ? $"{rank:#,0}"
                        : r.Found ? "found"
                        : "not found",
                        $"{r.Day ?? thing.Day:yyyy-MM-dd}",
                    ])),
            ],
            rows.Count,
            [],
            rows.Count == 0 ? "There is no rank in it."
                : listing is null ? "Which listing are they of? Choose it."
                : null,
            ListingId: listing?.Id,
            NeedsListing: true,
            HasDay: true
        );
    }

    public async Task<IReadOnlyList<IUndoStep>> Add(IReadOnlyList<DroppedThing> things, CancellationToken stop)
    {
        var steps = new List<IUndoStep>();
        foreach (var thing in things)
        {
            var listing = await thing.Listing(db, stop).OrNotThere();
            var rows = CheckTables.Read(thing.Content.Path, market.LastDay, stop).Select(r => r with { Day = r.Day ?? thing.Day });
            steps.AddRange(await ObservedChecks.Add(db, market, listing.Id, thing.Market.Id, [.. rows], thing.Content.Source, stop));
        }

        return steps;
    }
}
