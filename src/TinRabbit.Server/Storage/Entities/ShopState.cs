using System.Text.Json;

namespace TinRabbit.Server.Storage;

/// <summary>What a change to several things of the shop takes back: how each was before, and what was added.</summary>
public sealed record ShopState
{
    public IReadOnlyList<PageState> Pages { get; init; } = [];
    public IReadOnlyList<TextState> Texts { get; init; } = [];
    public IReadOnlyList<ArchivedState> Archived { get; init; } = [];
    public IReadOnlyList<LeadState> Leads { get; init; } = [];
    public IReadOnlyList<PictureState> Pictures { get; init; } = [];
    public IReadOnlyList<ProductState> Products { get; init; } = [];

    /// <summary>The web shop's settings; null where they were not changed.</summary>
    public SiteState? Site { get; init; }

    /// <summary>The shop's name and currency; null where they were not changed.</summary>
    public ShopNames? Shop { get; init; }

    /// <summary>The seller's own words; null where they were not changed.</summary>
    public IReadOnlyList<OwnWord>? OwnWords { get; init; }

    /// <summary>Profiles by the platform's id; null for a platform that was added.</summary>
    public IReadOnlyDictionary<string, string?> Platforms { get; init; } = new Dictionary<string, string?>();

    /// <summary>Products that were added, with all that is theirs.</summary>
    public IReadOnlyList<int> AddedProducts { get; init; } = [];

    /// <summary>Listings that were added to products that were there, with their pages.</summary>
    public IReadOnlyList<int> AddedListings { get; init; } = [];

    /// <summary>Pages that were added to listings that were there.</summary>
    public IReadOnlyList<int> AddedPages { get; init; } = [];

    /// <summary>Takes that were added to listings that were there.</summary>
    public IReadOnlyList<int> AddedTakes { get; init; } = [];

    /// <summary>Old slugs that were added.</summary>
    public IReadOnlyList<string> AddedRedirects { get; init; } = [];

    /// <summary>As a reversal keeps it.</summary>
    public string ToJson() => JsonSerializer.Serialize(this, JsonSerializerOptions.Web);

    /// <exception cref="JsonException">The text is none that <see cref="ToJson"/> made.</exception>
    public static ShopState FromJson(string json) => JsonSerializer.Deserialize<ShopState>(json, JsonSerializerOptions.Web)!;
}
