namespace TinRabbit.Server.Files.Html.Reading;

/// <summary>What a page that a seller saw is.</summary>
public enum ReadKind
{
    /// <summary>What a search found.</summary>
    Results,

    /// <summary>One listing.</summary>
    Listing,

    /// <summary>What a marketplace offers while one types.</summary>
    Suggestions,
    Other,
}
