using TinRabbit.Core.Rivals;
using TinRabbit.Server.Listings;
using TinRabbit.Server.Markets;

namespace TinRabbit.Server.Rivals;

/// <summary>What is seen of rivals' listings, from a market's result to what the engine compares.</summary>
internal static class RivalStates
{
    /// <summary>A result of a search, in the fields of a platform. What the market does not show is left out.</summary>
    public static RivalState Of(Result result, Platform platform) =>
        new(
            result.Shop,
            ListingText.Of(ResultCopy.Of(result, platform)),
            result.Price,
            result.Rating,
            result.Ratings,
            result.Photos,
            result.Sales,
            result.Views,
            result.Occupancy
        );

    /// <summary>What the figures of a result can be compared by.</summary>
    public static RivalListing Figures(Result result) =>
        new(
            result.Attributes.ToDictionary(a => a.Key, a => (IReadOnlyList<string>)[a.Value]),
            (double?)result.Price,
            result.Sales,
            result.Views,
            result.Occupancy
        )
        {
            Title = result.Title,
            Tags = result.Tags,
            Description = result.Description ?? "",
            Ratings = result.Ratings,
        };

    /// <summary>What changed in a rival's listing since it was saved: numbers and fields, by the words that name them.</summary>
    public static IReadOnlyList<RivalChange> Changes(RivalState before, RivalState now, Platform platform)
    {
        var changes = new List<RivalChange>();
        Compare("Shop", before.Shop, now.Shop);
        Compare("Price", Written(before.Price), Written(now.Price));
        Compare("Stars", Written(before.Rating), Written(now.Rating));
        Compare("Ratings", Written(before.Ratings), Written(now.Ratings));
        Compare("Photos", Written(before.Photos), Written(now.Photos));
        Compare("Sales/mo", Written(before.Sales), Written(now.Sales));
        Compare("Views/mo", Written(before.Views), Written(now.Views));
        Compare("Occupancy", Written(before.Occupancy), Written(now.Occupancy));
        var (old, fresh) = (before.Copy.Fields(), now.Copy.Fields());
        foreach (var field in platform.Fields)
            Compare(field.Label, TextOf(old[field.Key]), TextOf(fresh[field.Key]));
        return changes;

        void Compare(string what, string one, string other)
        {
            if (one != other)
                changes.Add(new(what, one, other));
        }
    }

    private static string Written(IFormattable? number) => number?.ToString(null, CultureInfo.InvariantCulture) ?? "";

    private static string TextOf(JsonNode? value) =>
        value switch
        {
            JsonArray items => string.Join(", ", items.Select(i => i?.ToString())),
            JsonObject choices => string.Join(", ", choices.Select(c => $"{c.Key}: {TextOf(c.Value)}")),
            null => "",
            _ => value.ToString(),
        };
}
