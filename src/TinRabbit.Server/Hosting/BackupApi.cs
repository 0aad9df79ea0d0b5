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
        api.MapGet("/", GetBackups);
        api.MapPost("/", BackUp).DisableRequestTimeout();
        api.MapPost("/restore", RestoreBackup).DisableRequestTimeout();
    }

    private static BackupsView GetBackups(BackupService backups, DataFolder folder) =>
        new BackupsView(folder.Backups, Backups.Kept, backups.All());

    private static async Task<BackupView> BackUp(BackupService backups, CancellationToken stop) =>
        await backups.BackUp(BackupKind.Manual, stop);

    private static Task<BackupView> RestoreBackup(RestoreRequest request, BackupService backups) =>
        backups.Restore(request.Name, CancellationToken.None).OrNotThere();
}
