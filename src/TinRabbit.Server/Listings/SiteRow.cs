namespace TinRabbit.Server.Listings;

/// <summary>The seller's own web shop as a whole.</summary>
public sealed class SiteRow : IOfPages
{
    public int Id { get; set; }

    /// <summary>The platform whose rules its pages have.</summary>
    public required string PlatformId { get; set; }

    /// <summary>The name that readers know; empty where none is set.</summary>
    public string Brand { get; set; } = "";

    /// <summary>Where it is, as <c>https://ploverandpine.example</c>; empty where none is set.</summary>
    public string Address { get; set; } = "";

    /// <summary>BCP 47 tag of its texts.</summary>
    public string Language { get; set; } = "en";

    /// <summary>ISO 3166-1 alpha-2 code, lower case: its numbers come from the web market of this country.</summary>
    public string Country { get; set; } = "us";

    /// <summary>What the shop system adds to every page title by itself; empty where it adds nothing.</summary>
    public string TitleSuffix { get; set; } = "";

    /// <summary>Counts the saves, so that two windows notice each other.</summary>
    public int Revision { get; set; }
}
