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
    public static string IdOf(string? address, string title) =>
        PathOf(address) is { Length: > 1 } path ? path : $"title:{Tokens.Key(title)}";

    /// <summary>Whether two addresses open one listing, however it was come to; one without a host is of any.</summary>
    public static bool IsSameAddress(string one, string other)
    {
        var (first, second) = (HostOf(one), HostOf(other));
        var isOneHost = first is null || second is null || first == second;
        // The first page of a site is known by its host alone.
        return isOneHost
            && PathOf(one) is { } path
            && path == PathOf(other)
            && (path.Length > 1 || (first is not null && second is not null));
    }

    // The path with the names that say which listing it is; “/” for the first page of a site, null for what is no address.
    private static string? PathOf(string? address)
    {
        if (address is null || !Uri.TryCreate(new Uri("https://market.invalid/"), address, out var whole))
            return null;
        var named = whole
            .Query.TrimStart('?')
            .Split('&', StringSplitOptions.RemoveEmptyEntries)
            .Where(p => IdNames.Contains(p.Split('=')[0].ToLowerInvariant()));
        return $"/{whole.AbsolutePath.Trim('/')}{string.Concat(named.Select(n => $"?{n}"))}".ToLowerInvariant();
    }

    private static string? HostOf(string address) =>
        !Uri.TryCreate(address, UriKind.Absolute, out var uri) || uri.Host.Length == 0 ? null
        : uri.Host.StartsWith("www.", StringComparison.OrdinalIgnoreCase) ? uri.Host[4..]
        : uri.Host;

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
