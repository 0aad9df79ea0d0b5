using System.Text.Json.Serialization;

namespace TinRabbit.Server.Listings;

/// <summary>True statements about a product.</summary>
public sealed record Facts
{
    /// <summary>What it is, as a shopper would say it.</summary>
    [MaxLength(Bounds.TermLength)]
    public string What { get; init; } = "";

    /// <summary>The seller's own brand for it: its words claim nothing. Empty where it has none.</summary>
    [MaxLength(Bounds.NameLength)]
    public string Brand { get; init; } = "";

    [MaxLength(Bounds.Facts), EachMaxLength(Bounds.NameLength)]
    public IReadOnlyList<string> Materials { get; init; } = [];

    [MaxLength(Bounds.Facts), EachMaxLength(Bounds.NameLength)]
    public IReadOnlyList<string> Colours { get; init; } = [];

    [MaxLength(Bounds.Facts), EachMaxLength(Bounds.NameLength)]
    public IReadOnlyList<string> Sizes { get; init; } = [];

    [MaxLength(Bounds.Facts), EachMaxLength(Bounds.NameLength)]
    public IReadOnlyList<string> Audiences { get; init; } = [];

    [MaxLength(Bounds.Facts), EachMaxLength(Bounds.NameLength)]
    public IReadOnlyList<string> Occasions { get; init; } = [];

    /// <summary>Other properties that are true: organic, dishwasher safe, set of 3, from a country.</summary>
    [MaxLength(Bounds.Facts), EachMaxLength(Bounds.NameLength)]
    public IReadOnlyList<string> Properties { get; init; } = [];

    /// <summary>The same, as the facts guard takes them.</summary>
    [JsonIgnore]
    public FactWords Words =>
        new(
            What,
            new Dictionary<Facet, IReadOnlyList<string>>
            {
                [Facet.Material] = Materials,
                [Facet.Colour] = Colours,
                [Facet.Size] = Sizes,
                [Facet.Audience] = Audiences,
                [Facet.Occasion] = Occasions,
                [Facet.Property] = Properties,
            }
        )
        {
            Brand = Brand,
        };
}
