using System.ComponentModel.DataAnnotations;
using Microsoft.AspNetCore.Http.HttpResults;
using TinRabbit.Server.Storage;

namespace TinRabbit.Server.Hosting;

/// <summary>All backups of the shop.</summary>
/// <param name="Folder">Where they are.</param>
/// <param name="Kept">How many of each kind are kept.</param>
public sealed record BackupsView(string Folder, int Kept, IReadOnlyList<BackupView> Backups);

/// <summary>A backup to restore, by its file name.</summary>
public sealed record RestoreRequest([MaxLength(100)] string Name);

internal static class BackupApi
{
    public static void MapBackups(this IEndpointRouteBuilder app)
    {
        var api = app.MapGroup("/api/backups").WithTags("Backups");
        api.MapGet("/", GetBackups).WithName("GetBackups");
        api.MapPost("/", BackUp).WithName("BackUp").DisableRequestTimeout();
        api.MapPost("/restore", Restore).WithName("RestoreBackup").ProducesValidationProblem().DisableRequestTimeout();
    }

    private static Ok<BackupsView> GetBackups(BackupService backups, DataFolder folder) =>
        TypedResults.Ok(new BackupsView(folder.Backups, Backups.Kept, backups.All()));

    private static async Task<Ok<BackupView>> BackUp(BackupService backups, CancellationToken stop) =>
        TypedResults.Ok(await backups.BackUp(BackupKind.Manual, stop));

    private static async Task<Results<Ok<BackupView>, NotFound>> Restore(RestoreRequest request, BackupService backups) =>
        await backups.Restore(request.Name, CancellationToken.None) is { } before ? TypedResults.Ok(before) : TypedResults.NotFound();
}
