using TinRabbit.Server.Drops;
using TinRabbit.Server.Markets;
using TinRabbit.Server.Rivals;

namespace TinRabbit.Server.Features.Weigh;

/// <summary>A table of other sellers' listings, compared with one of the shop's.</summary>
internal sealed class RivalsDrop(TinContext db, IMarket market) : IDropKind
{
    public string Id => "rivals";

    public string Name => "Rivals";

    public double? Fits(DropContent content) =>
        content.Table is not { } table || table.Find("title", "titel", "título", "titre", "name") < 0 ? null
        : table.Find("shop", "seller", "competitor", "rival") >= 0 ? 0.9
        : 0.3;

    public async Task<DropShown> Look(DroppedThing thing, CancellationToken stop)
    {
        var listing = await thing.Listing(db, stop);
        var rivals = listing is null ? [] : RivalTables.Read(thing.Content.Path, listing.Platform.Profile, stop);
        return new(
            rivals.Count switch
            {
                0 => "Rivals",
                1 => "1 rival",
                _ => $"{rivals.Count:#,0} rivals",
            },
            [],
            ["Shop", "Title", "Price"],
            [
                .. rivals
                    .Take(DropShown.MostRows)
                    .Select(r => new DropRow([
                        r.Shop,
                        r.Copy.TextOf(listing!.Platform.Profile, "title"),
                        $"{r.Price?.ToString(CultureInfo.InvariantCulture)}",
                    ])),
            ],
            rivals.Count,
            [],
            listing is null ? "Which listing of yours are they compared with? Choose it."
                : rivals.Count == 0 ? "There is no listing in it."
                : null,
            ListingId: listing?.Id,
            NeedsListing: true,
            HasDay: true
        );
    }

    public async Task<IReadOnlyList<IUndoStep>> Add(IReadOnlyList<DroppedThing> things, CancellationToken stop)
    {
        var added = new List<int>();
        foreach (var thing in things)
        {
            var listing = await thing.Listing(db, stop).OrNotThere();
            List<RivalRow> rows =
            [
                .. RivalTables
                    .Read(thing.Content.Path, listing.Platform.Profile, stop)
                    .Select(r =>
                        SavedRivals.Row(listing.Id, thing.Market.Id, null, thing.Content.Source, r, db.Now, market.TimeOf(thing.Day))
                    ),
            ];
            await SavedRivals.Add(db, listing.Id, rows, stop);
            added.AddRange(rows.Select(r => r.Id));
        }

        return [RemoveRows.Of<RivalRow>(added)];
    }
}
