using TinRabbit.Server.Drops;
using TinRabbit.Server.Files.Tables;
using TinRabbit.Server.Recordings;
using TinRabbit.Server.Rivals;

namespace TinRabbit.Server.Features.Weigh;

/// <summary>A table of reviews, of one listing or of several.</summary>
internal sealed class ReviewsDrop(TinContext db, IMarket market) : IDropKind, IHasColumns
{
    public string Id => "reviews";

    public string Name => "Reviews";

    public double? Fits(DropContent content) =>
        content.Table is not { } table || ReviewColumns.Guess(table) is not { } roles ? null
        : table.Find("term", "keyword", "sku", "tag") >= 0 ? 0.2
        : roles.Contains("stars") && (roles.Contains("date") || roles.Contains("author") || table.Width <= 3) ? 0.9
        : roles.Contains("stars") ? 0.6
        : table.Find("review", "comment", "feedback") >= 0 ? 0.7
        : 0.25;

    public IReadOnlyList<DropColumn>? ColumnsOf(DroppedThing thing) =>
        thing.Content.Table is { } table ? TableRoles.Shown(table, RolesOf(table, thing.Choice), ReviewColumns.Roles) : null;

    public async Task<DropShown> Look(DroppedThing thing, CancellationToken stop)
    {
        var read = Read(thing, stop);
        var sorted = await Sorted(read, thing, stop);
        var left = sorted.Where(s => s.Listing is null).ToList();
        var isOfRivals = thing.Choice.OfRivals == true;
        var facts = sorted
            .Where(s => s.Name.Length > 0 && s.Listing is not null)
            .OrderByDescending(s => s.Reviews.Count)
            .Take(8)
            .Select(s => new DropFact(isOfRivals ? "Rival" : "Yours", $"{s.Name}: {s.Reviews.Count:#,0}"))
            .ToList();
        return new(
            read.Count == 1 ? "1 review" : $"{read.Count:#,0} reviews",
            facts,
            ["Review", "Stars", "Date"],
            [
                .. read.Take(DropShown.MostRows)
                    .Select(r => new DropRow(
                        [r.Text, r.Stars?.ToString("0.#", CultureInfo.InvariantCulture) ?? "", $"{r.At:yyyy-MM-dd}"],
                        r.Stars is null && r.At is null
                    )),
            ],
            read.Count,
            left.Count > 0 && left.Count < sorted.Count
                ? [$"Left out, as no listing of yours has this name: {string.Join(", ", left.Take(8).Select(s => $"“{s.Name}”"))}."]
                : [],
            read.Count == 0 ? "There is no review in it."
                : left.Count < sorted.Count ? null
                : left[0].Name.Length > 0
                    ? "No listing of yours has one of the names in it. Import your listings first, or say that they are of rivals."
                : "Whose reviews are they? Choose the listing that they are of, or that is compared with them.",
            ListingId: thing.ListingId,
            NeedsListing: isOfRivals || sorted.Exists(s => s.Name.Length == 0),
            OfRivals: isOfRivals,
            Columns: ColumnsOf(thing)
        );
    }

    public async Task<IReadOnlyList<IUndoStep>> Add(IReadOnlyList<DroppedThing> things, CancellationToken stop)
    {
        var added = new List<int>();
        foreach (var thing in things)
        foreach (var (_, of, reviews) in await Sorted(Read(thing, stop), thing, stop))
            if (of is { } listing)
            {
                var isOfRivals = thing.Choice.OfRivals == true;
                var rows = await Reviews.Add(db, listing, isOfRivals, null, reviews, thing.Content.Source, stop);
                added.AddRange(rows.Select(r => r.Id));
            }

        return [RemoveRows.Of<ReviewRow>(added)];
    }

    // By the listing that the file names, where it is one of the shop's; as the seller says where it names none, or where they are of rivals.
    private async Task<List<(string Name, int? Listing, List<GivenReview> Reviews)>> Sorted(
        List<GivenReview> read,
        DroppedThing thing,
        CancellationToken stop
    )
    {
        var isOfRivals = thing.Choice.OfRivals == true;
        var own = await OwnListings.Load(db, thing.Market.PlatformId, stop);
        var chosen = (await thing.Listing(db, stop))?.Id;
        return
        [
            .. read.GroupBy(r => r.Listing)
                .Select(g => (g.Key, isOfRivals || g.Key.Length == 0 ? chosen : own.FirstOrDefault(o => o.IsNamed(g.Key))?.Id, g.ToList())),
        ];
    }

    private List<GivenReview> Read(DroppedThing thing, CancellationToken stop)
    {
        var table = thing.Content.Table!;
        var roles = RolesOf(table, thing.Choice);
        if (!roles.Contains("text"))
            throw HeadedRow.Wrong("Which column holds the texts of the reviews? Choose it below.");
        var reviews = new List<GivenReview>();
        foreach (var row in HeadedRow.Under(thing.Content.Path, table.Look, table.HasHead, roles, Bounds.Reviews, stop))
        {
            var (text, stars) = (row["text"], row["stars"]);
            if (text.Length == 0)
                continue;
            if (text.Length > Bounds.ReviewLength)
                throw HeadedRow.Wrong($"Row {row.Number} has {text.Length:#,0} characters; the limit is {Bounds.ReviewLength:#,0}.");
            var given = ReviewColumns.StarsOf(stars);
            if (stars.Length > 0 && given is null)
                throw HeadedRow.Wrong($"Row {row.Number}: “{stars}” are no stars. Stars go from 1 to 5.");
            var date = WrittenDates.Read(row["date"], row.Dates);
            reviews.Add(new(text, given, date <= market.LastDay ? date : null, Short(row["author"]), Short(row["listing"])));
        }

        return reviews;
    }

    private static string Short(string text) => text.Length <= Bounds.NameLength * 2 ? text : text[..(Bounds.NameLength * 2)];

    private static string[] RolesOf(DropTable table, DropChoice choice)
    {
        var guess = ReviewColumns.Guess(table);
        return TableRoles.Of(table, choice, i => guess?[i] ?? "");
    }
}
