using TinRabbit.Server.Drops;
using TinRabbit.Server.Shelf;

namespace TinRabbit.Server.Features.Drop;

/// <summary>What was uploaded.</summary>
public sealed record Dropped(IReadOnlyList<DroppedFile> Files);

internal static class DropApi
{
    public static void MapDrops(this IEndpointRouteBuilder app)
    {
        var api = app.MapGroup("/api/drops");
        api.MapPost("/", UploadDrop).TakesFile().ProducesProblem(413).DisableRequestTimeout();
        api.MapPost("/preview", PreviewDrops).DisableRequestTimeout();
        api.MapPost("/add", AddDrops).RetriesRaces().DisableRequestTimeout();
        api.MapDelete("/{id}", ForgetDrop);
    }

    private static async Task<Results<Ok<Dropped>, ProblemHttpResult>> UploadDrop(
        string? name,
        TinContext db,
        DataFolder data,
        HttpRequest request,
        CancellationToken stop
    ) =>
        await DropFiles.Receive(request, name, data, db.Now, stop) is { } files
            ? TypedResults.Ok(new Dropped(files))
            : ImportFiles.TooLarge();

    private static async Task<List<DropView>> PreviewDrops(DropsRequest request, DropDesk desk, CancellationToken stop) =>
        await desk.Look(request, stop);

    private static async Task<Changed> AddDrops(DropsRequest request, DropDesk desk, CancellationToken stop) =>
        await desk.Add(request, stop);

    private static NoContent ForgetDrop(string id, DataFolder data)
    {
        DropFiles.Remove(data, [id]);
        return TypedResults.NoContent();
    }
}
