using TinRabbit.Server.Files.Html.Reading;

namespace TinRabbit.Server.Recordings;

/// <summary>Everything that the seller brought in of one market, to be asked. The newest counts.</summary>
internal sealed class RecordedPages
{
    // The pages of one search that were saved within a few days belong together.
    private const int DaysTogether = 3;

    private readonly Dictionary<string, SearchPage> _searches;
    private readonly Dictionary<string, IReadOnlyList<string>> _suggestions;
    private readonly Dictionary<string, RecordingRow> _listings;
    private readonly Dictionary<string, Result> _results = new(StringComparer.Ordinal);
    private readonly Dictionary<string, RecordingRow> _byTitle = new(StringComparer.Ordinal);

    /// <summary>Prepares them.</summary>
    /// <param name="rows">Those of one market.</param>
    /// <param name="isWeb">Whether the market is web search, which finds pages.</param>
    public RecordedPages(IReadOnlyList<RecordingRow> rows, bool isWeb)
    {
        var newest = rows.OrderByDescending(r => r.Day).ThenByDescending(r => r.Id).ToList();
        _listings = newest
            .Where(r => r.Kind == RecordingKind.Listing)
            .GroupBy(r => r.Key)
            .ToDictionary(g => g.Key, g => g.First(), StringComparer.Ordinal);
        foreach (var listing in _listings.Values)
            _byTitle.TryAdd(Tokens.Key(listing.Page.Listing!.Title), listing);
        _suggestions = newest
            .Where(r => r.Kind == RecordingKind.Suggestions)
            .GroupBy(r => r.Key)
            .ToDictionary(g => g.Key, g => g.First().Page.Suggestions, StringComparer.Ordinal);
        _searches = newest
            .Where(r => r.Kind == RecordingKind.Results)
            .GroupBy(r => r.Key)
            .ToDictionary(g => g.Key, g => PageOf([.. g], isWeb), StringComparer.Ordinal);
        foreach (var result in _searches.Values.OrderByDescending(p => p.Seen!.Day).SelectMany(p => p.Results))
            _results.TryAdd(result.Id!, result);
    }

    /// <summary>What was offered for what was typed; null where that was not recorded.</summary>
    public IReadOnlyList<string>? Suggest(string typed) => _suggestions.GetValueOrDefault(Tokens.Key(typed));

    /// <summary>What a search found; null where that was not recorded.</summary>
    public SearchPage? Search(string term) => _searches.GetValueOrDefault(Tokens.Key(term));

    /// <summary>A listing, with the most that is known of it; null where it was not recorded.</summary>
    public Result? Listing(string id)
    {
        var among = _results.GetValueOrDefault(id);
        var page = _listings.GetValueOrDefault(id) ?? (among is null ? null : PageFor(among));
        return page is not null ? SeenListing.Of(page.Page.Listing!, among ?? AmongResults(page)) : among;
    }

    /// <summary>The reviews of a listing; null where its own page was not recorded.</summary>
    public IReadOnlyList<MarketReview>? Reviews(string id) =>
        (_listings.GetValueOrDefault(id) ?? (_results.GetValueOrDefault(id) is { } among ? PageFor(among) : null))?.Page.Listing is { } page
            ?
            [
                .. page
                    .Reviews.Where(r => r.Text.Length is > 0 and <= Bounds.ReviewLength)
                    .Select(r => new MarketReview(r.Text, r.Stars, r.Date)),
            ]
            : null;

    private Result? AmongResults(RecordingRow page) =>
        _results.Values.FirstOrDefault(r => SeenListing.IsTitle(r.Title, page.Page.Listing!.Title));

    private RecordingRow? PageFor(Result among) =>
        _listings.GetValueOrDefault(among.Id!)
        ?? _byTitle.GetValueOrDefault(Tokens.Key(among.Title))
        ?? (
            among.Title.EndsWith('…') || among.Title.EndsWith("...", StringComparison.Ordinal)
                ? _listings.Values.FirstOrDefault(l => SeenListing.IsTitle(among.Title, l.Page.Listing!.Title))
                : null
        );

    // What is known of a listing by its own page joins what the results show of it.
    private SearchPage PageOf(List<RecordingRow> pages, bool isWeb)
    {
        var newest = pages[0];
        var together = pages.Where(p => newest.Day.DayNumber - p.Day.DayNumber <= DaysTogether).ToList();
        var results = new SortedDictionary<int, ReadResult>();
        foreach (var read in together.SelectMany(p => p.Page.Results))
            results.TryAdd(read.Position, read);
        return new(
            together.Select(p => p.Page.Total).FirstOrDefault(t => t is not null),
            [.. results.Values.Select(SeenListing.Of).Select(r => PageFor(r) is { } own ? SeenListing.Of(own.Page.Listing!, r) : r)]
        )
        {
            Pages = isWeb ? [.. results.Values.Where(r => !r.Sponsored).Select(PageOf)] : [],
            Related = together.Select(p => p.Page.Related).FirstOrDefault(r => r.Count > 0) ?? [],
            Seen = SeenOf(newest),
        };
    }

    private static WebResult PageOf(ReadResult read) =>
        new(
            read.Shop ?? (Uri.TryCreate(read.Url, UriKind.Absolute, out var address) ? address.Host : ""),
            read.Title,
            "",
            read.Price is null ? WebResultKind.Other : WebResultKind.Product
        );

    private static SeenAt SeenOf(RecordingRow row) => new(row.Day, row.Source);
}
