namespace TinRabbit.Server.Listings;

/// <summary>In which state words are.</summary>
public enum DiffKind
{
    Same,
    Added,
    Removed,
}
