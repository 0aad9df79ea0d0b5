namespace TinRabbit.Core.Measures;

/// <summary>Where to use a pick.</summary>
public enum Home
{
    /// <summary>Not decided.</summary>
    Anywhere,

    /// <summary>The title; of a page, also its heading.</summary>
    Title,

    /// <summary>The tags.</summary>
    Tags,

    /// <summary>The bullet points.</summary>
    Bullets,

    /// <summary>The backend keywords, and nowhere else.</summary>
    Backend,

    /// <summary>The description, or the body of a page.</summary>
    Description,

    /// <summary>Parked: not worked on now.</summary>
    Later,

    /// <summary>Never to be used.</summary>
    Avoid,
}
