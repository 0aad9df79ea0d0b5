using TinRabbit.Server.Hosting;
using TinRabbit.Server.Listings;
using TinRabbit.Server.Picks;
using TinRabbit.Server.Shelf;

namespace TinRabbit.Server.Features.Write;

/// <summary>A take, and the listing's figures with it by the current picks and other fields.</summary>
/// <param name="Id">Its number; 0 for the title as it stands.</param>
/// <param name="Used">Room it takes, in the field's unit.</param>
/// <param name="Reach">The listing's with it, 0–100.</param>
/// <param name="Grip">The listing's with it, 0–100.</param>
/// <param name="Holds">Picks that this title alone contains, the most searched first.</param>
/// <param name="Mix">How many known terms that it contains have low, medium, high and unknown competition.</param>
/// <param name="InUse">Whether it is the title now.</param>
/// <param name="Name">The seller's name for it; empty where none.</param>
public sealed record TakeView(
    int Id,
    string Text,
    DateTime At,
    int Used,
    bool Fits,
    double Reach,
    double Grip,
    IReadOnlyList<TakeTerm> Holds,
    CompetitionMix Mix,
    bool InUse,
    string Name
);

/// <summary>A pick that a take holds.</summary>
public sealed record TakeTerm(string Text, Grade Grade, double? Volume);

/// <summary>A title to save as a take.</summary>
public sealed record KeepTakeRequest([MaxLength(Bounds.ReadLength)] string Text);

internal static class TakesApi
{
    public static void MapTakes(this IEndpointRouteBuilder app)
    {
        var api = app.MapGroup("/api/listings/{id:int}/takes");

        // By POST, because the draft goes along.
        api.MapPost("/weighed", GetTakes).WithRequestTimeout(ProblemAnswers.Computes);
        api.MapPost("/", KeepTake).RetriesRaces();
        api.MapPut("/{take:int}/name", RenameTake).RetriesRaces();
        api.MapDelete("/{take:int}", DeleteTake);
    }

    private static async Task<List<TakeView>> GetTakes(
        int id,
        int? before,
        DraftOf draft,
        TinContext db,
        PreparedPicksCache ready,
        Shelves shelves,
        CancellationToken stop
    )
    {
        var open = await OpenDraft.Open(db, ready, id, draft, stop).OrNotThere();
        var title = open.Platform.Role("title") ?? throw new NotThereException();
        var (now, views) = (open.TextOf("title").Trim(), new List<TakeView>());
        foreach (var row in await Rows(db, id, before, now, stop))
        {
            var read = await shelves.Read(db, draft.MarketId, open.Platform, row.Text, stop);
            views.Add(View(open, title, row, row.Text == now, CompetitionMix.Of(read.Holds), stop));
        }

        return views;
    }

    // The title of the draft comes first, be it saved as a take or not.
    private static async Task<List<TakeRow>> Rows(TinContext db, int listingId, int? before, string now, CancellationToken stop)
    {
        var rows = await db
            .Takes.AsNoTracking()
            .Where(t => t.ListingId == listingId && (before == null || t.Id < before))
            .OrderByDescending(t => t.Id)
            .Take(Bounds.PageRows)
            .ToListAsync(stop);
        if (before is null && now.Length > 0 && !await db.Takes.AnyAsync(t => t.ListingId == listingId && t.Text == now, stop))
            rows.Insert(
                0,
                new()
                {
                    ListingId = listingId,
                    Text = now,
                    At = db.Now,
                }
            );
        return rows;
    }

    private static async Task<NoContent> KeepTake(
        int id,
        KeepTakeRequest request,
        TinContext db,
        ListingEditor editor,
        CancellationToken stop
    )
    {
        if (!await db.Listings.AnyAsync(l => l.Id == id, stop))
            throw new NotThereException();
        await editor.SaveTake(id, request.Text, stop);
        await db.SaveChangesAsync(stop);
        return TypedResults.NoContent();
    }

    private static async Task<Changed> RenameTake(
        int id,
        int take,
        NameRequest request,
        TinContext db,
        ChangeLog changes,
        CancellationToken stop
    )
    {
        var row = await db.Takes.FirstOrDefaultAsync(t => t.Id == take && t.ListingId == id, stop).OrNotThere();
        var (before, undo) = (row.Name, RenameRow.Of(row, take));
        row.Rename(request.Name.Trim());
        return await changes.Save(
            ChangeMessages.Renamed("take", before.Length > 0 ? before : row.Text, row.Name),
            new(Screen.Write, await db.ProductOf(id, stop), id),
            [undo],
            stop
        );
    }

    private static async Task<Changed> DeleteTake(int id, int take, TinContext db, ChangeLog changes, CancellationToken stop)
    {
        var row = await db.Takes.FirstOrDefaultAsync(t => t.Id == take && t.ListingId == id, stop).OrNotThere();
        return await changes.Delete(
            ChangeMessages.Deleted("take", row.Name.Length > 0 ? row.Name : row.Text),
            new(Screen.Write, await db.ProductOf(id, stop), id),
            [row],
            stop
        );
    }

    private static TakeView View(OpenDraft open, Field title, TakeRow row, bool inUse, CompetitionMix mix, CancellationToken stop)
    {
        var value = new FieldValue.Text(row.Text);
        var weighing = Core.Measures.Weigher.Weigh(
            open.Picks.Terms,
            new Dictionary<string, FieldValue>(open.Copy) { [title.Key] = value },
            open.Picks.Wanted,
            stop
        );
        var at = open.Platform.IndexedFields.ToList().FindIndex(f => f.Key == title.Key);
        var holds =
            at < 0
                ? []
                : weighing
                    .Terms.Where(t => t.Grade != Grade.Missing)
                    .Select(t => (t.Term, Grade: t.Explain().Fields[at]))
                    .Where(t => t.Grade > Grade.Spread)
                    .ToList();
        return new(
            row.Id,
            row.Text,
            row.At,
            TextLength.Of(row.Text, title.Limit?.Unit ?? Unit.Characters),
            RoomUsed.Of(title, value).Fits,
            weighing.Reach,
            weighing.Grip,
            [.. holds.OrderByDescending(h => h.Term.Worth()).Select(h => new TakeTerm(h.Term.Text, h.Grade, h.Term.Volume))],
            mix,
            inUse,
            row.Name
        );
    }
}
