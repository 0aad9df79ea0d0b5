namespace TinRabbit.Server.Storage;

/// <summary>Where to use a pick.</summary>
public enum Home
{
    /// <summary>Not decided.</summary>
    Anywhere,
    Title,
    Tags,
    Bullets,
    Backend,
    Body,

    /// <summary>Parked: not worked on now.</summary>
    Later,

    /// <summary>Never to be used.</summary>
    Avoid,
}
