namespace TinRabbit.Server.Listings;

/// <summary>A platform by its profile.</summary>
public sealed class PlatformRow : IDeletable, IWeighed
{
    public DateTime? DeletedAt { get; set; }

    public required string Id { get; set; }
    public required Platform Profile { get; set; }

    /// <summary>Counts the changes, so that two windows notice each other.</summary>
    public int Revision { get; set; }

    /// <summary>The shipped platform of whose kind a seller's own is; null for a shipped one.</summary>
    public string? Like { get; set; }

    /// <summary>Changes the profile, and moves the revision on.</summary>
    public void SetProfile(Platform profile) => (Profile, Revision) = (profile, Revision + 1);
}
