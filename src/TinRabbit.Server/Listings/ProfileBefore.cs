namespace TinRabbit.Server.Listings;

/// <summary>A platform's profile before a change, as it is stored.</summary>
public sealed record ProfileBefore(string PlatformId, string Profile) : IUndoStep
{
    public async Task<IReadOnlyList<IUndoStep>> Undo(UndoContext undo, CancellationToken stop)
    {
        if (await undo.Db.Platforms.FirstOrDefaultAsync(p => p.Id == PlatformId, stop) is not { } platform)
            return [];
        var now = new ProfileBefore(PlatformId, Profiles.Write(platform.Profile));
        platform.SetProfile(Profiles.Read(Profile));
        await undo.Db.ForgetHeads(PlatformId, stop);
        return [now];
    }
}
