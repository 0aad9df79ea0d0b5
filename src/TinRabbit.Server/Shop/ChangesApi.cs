using Microsoft.EntityFrameworkCore;
using TinRabbit.Server.Storage;

namespace TinRabbit.Server.Shop;

/// <summary>A change as the history lists it.</summary>
/// <param name="CanUndo">Whether it can be undone now: later changes to the same picks come first.</param>
public sealed record ChangeView(int Id, string What, DateTime At, bool CanUndo);

internal static class ChangesApi
{
    private const int Shown = 100;

    public static void MapChanges(this IEndpointRouteBuilder app)
    {
        var api = app.MapGroup("/api/changes").WithTags("Shop");
        api.MapGet("/", GetChanges)
            .WithName("GetChanges")
            .WithDescription("The last changes of the shop, and of a product where one is given; the newest first.");
        api.MapPost("/undo", Undo)
            .WithName("UndoChange")
            .WithDescription("Undoes a change, or the last one.")
            .ProducesValidationProblem()
            .DisableRequestTimeout();
    }

    private static async Task<List<ChangeView>> GetChanges(int? product, TinContext db, CancellationToken stop)
    {
        var rows = await db
            .Changes.AsNoTracking()
            .Where(c => c.ProductId == product || c.ProductId == null)
            .OrderByDescending(c => c.Id)
            .Take(Shown)
            .ToListAsync(stop);
        var lastOfPicks = rows.FirstOrDefault(r => r.Reversal is null)?.Id;
        return [.. rows.Select(r => new ChangeView(r.Id, r.What, r.At, r.Reversal is not null || r.Id == lastOfPicks))];
    }

    private static async Task<Changed> Undo(int? product, int? change, ChangeLog changes, CancellationToken stop) =>
        new(await changes.Undo(product, change, stop));
}
