namespace TinRabbit.Core.Words;

/// <summary>What words of material, style, colour, size, audience, occasion and property claim of a product (docs/model.md, "Facts").</summary>
public static class Facets
{
    /// <summary>Reads the words that claims are found by: it takes about a second, which the first text would otherwise wait for.</summary>
    public static void Load() => _ = IsFacetWord("wood") & Thesaurus.IsNoun("wood");

    /// <summary>The usual words of a facet, in the order of the data.</summary>
    public static IEnumerable<string> WordsOf(Facet facet) => Vocabulary.UsualOf(facet);

    /// <summary>Whether a word by itself belongs to a facet.</summary>
    public static bool IsFacetWord(string word) => ClaimsOf(word).Count > 0;

    /// <summary>What a term says of a product, the longest phrase first wherever several begin.</summary>
    public static IReadOnlyList<Claim> ClaimsOf(string text) =>
        [
            .. ClaimText
                .Read(text, NoOwnWords)
                .Found.Where(f => f.Entry is not { IsAmbiguous: true } and not { NeedsContext: true } and not { Facet: null })
                .Select(f => f.ToClaim(text)),
        ];

    /// <summary>
    /// What a text claims of the product and the facts lack. Style is taste, and claims nothing. Where no list of facts has a value, nothing is
    /// known, and nothing is called out. Words of the seller's own brand claim nothing.
    /// </summary>
    /// <param name="text">The text.</param>
    /// <param name="facts">What is true of the product.</param>
    /// <param name="kind">Whether it is a title or sentences.</param>
    public static IReadOnlyList<Claim> Unbacked(string text, FactWords facts, TextKind kind = TextKind.Title)
    {
        if (!facts.AreGiven)
            return [];
        var index = FactIndex.Of(facts);
        var read = ClaimText.Read(text, facts.Own);
        var brands = Names.In(text, facts.Brand);
        var unbacked = new List<Claim>();
        for (var i = 0; i < read.Found.Count; i++)
        {
            var found = read.Found[i];
            if (found.Facet is null or Facet.Style)
                continue;
            var backed =
                found.Measure is { } measure ? index.Backs(measure)
                : found.Facet == Facet.Material && read.IsCalledPure(found)
                    ? index.Backs(found.Key, found.Entry!) && !index.SaysOnlyAsBlend(found.Key)
                : index.Backs(found.Key, found.Entry!);
            if (
                !backed
                && ClaimContext.IsAboutProduct(read, i, index, kind)
                && found.ToClaim(text) is var claim
                && !Names.Cover(brands, claim)
            )
                unbacked.Add(claim);
        }

        return unbacked;
    }

    private static readonly IReadOnlyDictionary<string, Facet?> NoOwnWords = new Dictionary<string, Facet?>();
}
