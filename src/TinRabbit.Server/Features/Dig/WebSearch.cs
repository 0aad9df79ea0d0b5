namespace TinRabbit.Server.Features.Dig;

/// <summary>Reads the pages that a web search finds for a term, here and in the other countries.</summary>
internal static class WebSearch
{
    private const int PagesLookedAt = 20;
    private const int PagesShown = 8;
    private const int ModifiersShown = 14;

    // Under this share of common words, two countries mean different things by a term.
    private const double MeansTheSame = 0.2;

    /// <summary>The pages that are found, and the country whose pages say most different things; null where what is found is unknown.</summary>
    public static async Task<SeenPages?> Of(IMarket market, MarketPlace place, string key, CancellationToken stop)
    {
        var others = market.Places.Where(p => p.PlatformId == MarketPlace.Web && p.Id != place.Id).ToList();
        var searches = await Task.WhenAll(others.Prepend(place).Select(p => market.Search(p.Id, key, PagesLookedAt, stop)));
        if (searches[0] is not { } here)
            return null;
        var words = WordsOf(here);
        var own = Tokens.Of(key).Select(t => t.Word).ToHashSet(StringComparer.Ordinal);
        return new(
            here.Found,
            here.Pages.GroupBy(p => p.Kind.ToString().ToLowerInvariant()).ToDictionary(g => g.Key, g => g.Count()),
            [.. here.Pages.Take(PagesShown)],
            [
                .. words
                    .Where(w => !own.Contains(w.Key) && (Facets.ClaimsOf(w.Key).Count > 0 || Thesaurus.IsAdjective(w.Key)))
                    .OrderByDescending(w => w.Value)
                    .ThenBy(w => w.Key, StringComparer.Ordinal)
                    .Take(ModifiersShown)
                    .Select(w => new UsedWord(w.Key, w.Value)),
            ],
            here.Pages.Count == 0
                ? null
                : others
                    .Zip(searches.Skip(1), (o, s) => (o.CountryName, Share: Common(WordsOf(s).Keys.Where(w => !own.Contains(w)).ToList())))
                    .Where(o => o.Share < MeansTheSame)
                    .OrderBy(o => o.Share)
                    .Select(o => new OtherMeaning(o.CountryName, o.Share!.Value))
                    .FirstOrDefault()
        );

        // Null where nothing is found there.
        double? Common(List<string> there) => there.Count == 0 ? null : (double)there.Count(words.ContainsKey) / there.Count;
    }

    // In how many titles each word is; the names of the sites are left out.
    private static Dictionary<string, int> WordsOf(SearchPage? page) =>
        (page?.Pages ?? [])
            .SelectMany(p =>
                Tokens
                    .Of(p.Title)
                    .Select(t => t.Word)
                    .Where(w => !StopWords.Has(w))
                    .Except(Tokens.Of(p.Site).Select(t => t.Word))
                    .Distinct()
            )
            .GroupBy(w => w, StringComparer.Ordinal)
            .ToDictionary(g => g.Key, g => g.Count(), StringComparer.Ordinal);
}
