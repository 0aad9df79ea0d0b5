using TinRabbit.Server.Hosting;
using TinRabbit.Server.Picks;

namespace TinRabbit.Server.Features.Shop;

/// <summary>A change as the history lists it.</summary>
/// <param name="CanUndo">Whether it can be undone now: later changes to the same picks or facts come first.</param>
/// <param name="Screen">Where it was made.</param>
/// <param name="ListingId">The listing that it is about; null where it is not about one.</param>
/// <param name="PageId">The page that it is about; null where it is not about one.</param>
/// <param name="UndoneAt">When it was undone; null while it is in force.</param>
/// <param name="BringsBack">The deleted products that undoing it brings back.</param>
/// <param name="IsLarge">Whether it is asked first: an import, a bulk edit.</param>
public sealed record ChangeView(
    int Id,
    string What,
    DateTime At,
    bool CanUndo,
    Screen Screen,
    int? ListingId,
    int? PageId,
    DateTime? UndoneAt,
    IReadOnlyList<int> BringsBack,
    bool IsLarge
);

internal static class ChangesApi
{
    private const int Shown = 100;

    public static void MapChanges(this IEndpointRouteBuilder app)
    {
        var api = app.MapGroup("/api/changes");
        api.MapGet("/", GetChanges)
            .WithDescription("The last changes of the shop, or of a product and of the shop as a whole; the newest first.");
        api.MapPost("/{way:regex(^(undo|redo)$)}", TurnChange)
            .RetriesRaces()
            .WithDescription("Undoes a change, or makes one again that was undone: the one that is named, or the last of where one is.")
            .DisableRequestTimeout();
    }

    private static async Task<List<ChangeView>> GetChanges(int? product, bool? undone, TinContext db, CancellationToken stop)
    {
        var rows = await db
            .Changes.AsNoTracking()
            .Where(c => (product == null || c.ProductId == product || c.ProductId == null) && (undone == true || c.UndoneAt == null))
            .OrderByDescending(c => c.Id)
            .Take(Shown)
            .ToListAsync(stop);
        return
        [
            .. rows.Select(r => new ChangeView(
                r.Id,
                r.What,
                r.At,
                ChangeLog.IsFree(r, rows.Where(other => other.ProductId == r.ProductId)),
                r.Screen,
                r.ListingId,
                r.PageId,
                r.UndoneAt,
                [.. r.Steps.OfType<RestoreDeleted>().SelectMany(s => s.Removal is RemoveProducts products ? products.Ids : [])],
                r.IsLarge
            )),
        ];
    }

    // Without a screen: of the product and the shop, whatever a change is about. A change that is named was chosen by the seller.
    private static async Task<Changed> TurnChange(
        string way,
        int? product,
        int? change,
        string? screen,
        int? listing,
        int? page,
        DateTimeOffset? opened,
        DateTimeOffset? since,
        bool? sure,
        ChangeLog changes,
        TinContext db,
        MarketSetup markets,
        CancellationToken stop
    )
    {
        var here = new ChangesHere(ChangesHere.ScreenOf(screen), product, listing, page, opened?.UtcDateTime, since?.UtcDateTime);
        var isSure = sure ?? change is not null;
        var turned = way == "undo" ? await changes.Undo(here, change, isSure, stop) : await changes.Redo(here, change, isSure, stop);
        // The countries of the shop, or its platforms, may be others now.
        if (turned.What is not null)
            await markets.KnowPlaces(db, stop);
        return turned;
    }
}
