using TinRabbit.Server.Hosting;

namespace TinRabbit.Server.Features.Shop;

/// <summary>A change as the history lists it.</summary>
/// <param name="CanUndo">Whether it can be undone now: later changes to the same picks or facts come first.</param>
/// <param name="Screen">Where it was made.</param>
/// <param name="ListingId">The listing that it is about; null where it is not about one.</param>
/// <param name="PageId">The page that it is about; null where it is not about one.</param>
/// <param name="UndoneAt">When it was undone; null while it is in force.</param>
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
    bool IsLarge
);

internal static class ChangesApi
{
    private const int Shown = 100;

    public static void MapChanges(this IEndpointRouteBuilder app)
    {
        var api = app.MapGroup("/api/changes");
        api.MapGet("/", GetChanges).WithDescription("The last changes of the shop, and of a product where one is given; the newest first.");
        api.MapPost("/undo", UndoChange).RetriesRaces().WithDescription("Undoes a change, or the last one.").DisableRequestTimeout();
        api.MapPost("/redo", RedoChange)
            .RetriesRaces()
            .WithDescription("Makes a change again that was undone, or the one that was undone last.")
            .DisableRequestTimeout();
    }

    private static async Task<List<ChangeView>> GetChanges(int? product, bool? undone, TinContext db, CancellationToken stop)
    {
        var rows = await db
            .Changes.AsNoTracking()
            .Where(c => (c.ProductId == product || c.ProductId == null) && (undone == true || c.UndoneAt == null))
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
                r.IsLarge
            )),
        ];
    }

    // Where one is; without a screen, the product and the shop, whatever a change is about.
    private static async Task<Changed> UndoChange(
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
        var here = new ChangesHere(ReadScreen(screen), product, listing, page, opened?.UtcDateTime, since?.UtcDateTime);
        // A change that is named was chosen by the seller.
        return await Turned(await changes.Undo(here, change, sure ?? change is not null, stop), db, markets, stop);
    }

    private static async Task<Changed> RedoChange(
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
        var here = new ChangesHere(ReadScreen(screen), product, listing, page, opened?.UtcDateTime, since?.UtcDateTime);
        // A change that is named was chosen by the seller.
        return await Turned(await changes.Redo(here, change, sure ?? change is not null, stop), db, markets, stop);
    }

    private static Screen? ReadScreen(string? name) =>
        name is null ? null
        : Enum.TryParse<Screen>(name, ignoreCase: true, out var screen) && Enum.IsDefined(screen) ? screen
        : throw new InvalidInputException([new("screen", $"There is no screen “{name}”.")]);

    // The countries of the shop may be others now.
    private static async Task<Changed> Turned(Changed turned, TinContext db, MarketSetup markets, CancellationToken stop)
    {
        if (turned.What is not null)
            await markets.KnowPlaces(db, stop);
        return turned;
    }
}
