using TinRabbit.Server.Files.Documents;
using TinRabbit.Server.Files.Html.Reading;
using TinRabbit.Server.Files.Tables;

namespace TinRabbit.Server.Features.Watch;

/// <summary>What results pages that the seller saved say of one of their listings: whether it is among the results, and where.</summary>
internal static class FoundPages
{
    // A title that is cut off is known by as much of it.
    private const int LeastOfTitle = 20;

    /// <summary>Reads them. A page that shows only some of the results tells nothing of a listing that is not on it.</summary>
    /// <param name="file">A page, or a ZIP of pages.</param>
    /// <param name="title">The listing's title.</param>
    /// <param name="shop">The seller's shop.</param>
    /// <param name="stop">Stops the reading.</param>
    /// <exception cref="InvalidInputException">A page cannot be read, or none tells whether the listing is found.</exception>
    public static async Task<IReadOnlyList<ObservedRow>> Read(string file, string title, string shop, CancellationToken stop)
    {
        var pages = await SavedPages.Read(file, shop, stop);
        var results = pages.Where(p => p.Kind == ReadKind.Results).ToList();
        if (results.Count == 0)
            throw Wrong("This is no page of search results. Save the page that your search shows, whole.");
        if (results.TrueForAll(p => p.Query is null))
            throw Wrong("The page does not say what was searched for. Paste the term and your rank instead.");
        List<ObservedRow> rows =
        [
            .. results
                .Where(p => p.Query is not null)
                .GroupBy(p => Tokens.Key(p.Query!))
                .Where(g => g.Key.Length > 0)
                .Select(g => Row([.. g], title))
                .OfType<ObservedRow>(),
        ];
        return rows.Count > 0
            ? rows
            : throw Wrong(
                $"“{title}” is on none of these pages, and they show only some of the results. It may be further down: save the pages after them, too."
            );
    }

    // All pages of one search. Null where they do not tell.
    private static ObservedRow? Row(List<ReadPage> pages, string title)
    {
        var total = pages.Max(p => p.Total);
        foreach (var page in pages.OrderBy(p => p.Results[0].Position))
            if (page.Results.FirstOrDefault(r => !r.Sponsored && IsTitle(r.Title, title)) is { } own)
                return new(
                    page.Query!,
                    true,
                    own.Position - page.Results.Count(r => r.Sponsored && r.Position < own.Position),
                    total,
                    null
                );
        var shown = pages.SelectMany(p => p.Results).Select(r => r.Position).Distinct().Count();
        return total is null || shown < total ? null : new(pages[0].Query!, false, null, total, null);
    }

    private static bool IsTitle(string seen, string title)
    {
        var shown = seen.TrimEnd('…', '.', ' ');
        return string.Equals(shown, title.TrimEnd('.', ' '), StringComparison.OrdinalIgnoreCase)
            || (seen.Length > shown.Length && shown.Length >= LeastOfTitle && title.StartsWith(shown, StringComparison.OrdinalIgnoreCase));
    }

    private static InvalidInputException Wrong(string message) => new([new("file", message)]);
}
