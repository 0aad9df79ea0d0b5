using TinRabbit.Server.Files.Html.Reading;

namespace TinRabbit.Server.Recordings;

/// <summary>Listings as they were seen on pages, and what makes two of them the same.</summary>
internal static class SeenListing
{
    // A title that is cut off is known by as much of it.
    private const int LeastOfTitle = 20;

    // Names that say which listing an address is of; all others say how it was come to.
    private static readonly string[] IdNames = ["id", "item", "listing", "product", "p", "sku", "pid"];

    /// <summary>What a listing is called where it is seen again: its address without what leads there, otherwise its title.</summary>
    public static string IdOf(string? address, string title)
    {
        if (address is null)
            return $"title:{Tokens.Key(title)}";
        var whole = Uri.TryCreate(new Uri("https://market.invalid/"), address, out var uri) ? uri : null;
        if (whole is null || (whole.AbsolutePath.Trim('/').Length == 0 && whole.Query.Length < 2))
            return $"title:{Tokens.Key(title)}";
        var named = whole
            .Query.TrimStart('?')
            .Split('&', StringSplitOptions.RemoveEmptyEntries)
            .Where(p => IdNames.Contains(p.Split('=')[0].ToLowerInvariant()));
        return $"{whole.AbsolutePath.TrimEnd('/')}{string.Concat(named.Select(n => $"?{n}"))}".ToLowerInvariant();
    }

    /// <summary>A listing of a results page.</summary>
    public static Result Of(ReadResult read) =>
        new(
            read.Shop ?? "",
            read.Title,
            [],
            read.Price,
            read.FreeShipping ? 0 : null,
            read.Rating,
            read.Ratings,
            null,
            null,
            null,
            new Dictionary<string, string>(),
            IdOf(read.Url, read.Title)
        )
        {
            IsAd = read.Sponsored,
            Address = read.Url,
            Alt = read.Image?.Alt,
            Picture = read.Image?.Picture,
        };

    /// <summary>A listing of its own page.</summary>
    /// <param name="read">The page.</param>
    /// <param name="among">How it was seen among results; null where it was not.</param>
    public static Result Of(ReadListing read, Result? among) =>
        new(
            read.Shop ?? among?.Shop ?? "",
            read.Title,
            read.Tags,
            read.Price ?? among?.Price,
            among?.Shipping,
            read.Rating ?? among?.Rating,
            read.Ratings ?? among?.Ratings,
            read.Images.Count > 0 ? read.Images.Count : null,
            null,
            null,
            read.Attributes,
            among?.Id ?? IdOf(read.Address, read.Title),
            read.Bullets.Count > 0 ? read.Bullets : null
        )
        {
            Description = read.Description,
            Address = read.Address ?? among?.Address,
            Alt = among?.Alt,
            Picture = among?.Picture,
            IsAd = among?.IsAd ?? false,
        };

    /// <summary>Whether a title that was seen, perhaps cut off, is a listing's.</summary>
    public static bool IsTitle(string seen, string title)
    {
        var shown = seen.TrimEnd('…', '.', ' ');
        return string.Equals(shown, title.TrimEnd('.', ' '), StringComparison.OrdinalIgnoreCase)
            || (seen.Length > shown.Length && shown.Length >= LeastOfTitle && title.StartsWith(shown, StringComparison.OrdinalIgnoreCase));
    }
}
