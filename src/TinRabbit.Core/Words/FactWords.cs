namespace TinRabbit.Core.Words;

/// <summary>True statements about a product, as the facts guard takes them.</summary>
/// <param name="What">What it is, as a shopper would say it.</param>
/// <param name="ByFacet">What is true of it, by facet; a facet that is not there has no true value.</param>
public sealed record FactWords(string What, IReadOnlyDictionary<Facet, IReadOnlyList<string>> ByFacet)
{
    /// <summary>The seller's own brand: its words claim nothing where the whole brand stands; empty where there is none.</summary>
    public string Brand { get; init; } = "";

    /// <summary>The seller's own words, which come before the vocabulary: by their keys, what each is about; null where it claims nothing.</summary>
    public IReadOnlyDictionary<string, Facet?> Own { get; init; } = new Dictionary<string, Facet?>();

    /// <summary>The key under which a word of the seller's own is found.</summary>
    public static string OwnKeyOf(string word) => Vocabulary.KeyOf(word);

    /// <summary>Whether any list of facts has a value. Without one nothing is known; with one, an empty list means that there is none.</summary>
    public bool AreGiven => ByFacet.Values.Any(v => v.Any(f => !string.IsNullOrWhiteSpace(f)));

    /// <summary>The words of a text by which it is compared with facts: in any form, stop words left out.</summary>
    public static IEnumerable<string> KeysOf(string text) =>
        Tokens.Of(text).Where(t => !StopWords.Has(t.Word)).Select(t => Fold.Key(t.Word, Fold.AnyForm));
}
