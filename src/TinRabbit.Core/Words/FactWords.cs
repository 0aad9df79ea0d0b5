namespace TinRabbit.Core.Words;

/// <summary>True statements about a product, as the facts guard takes them.</summary>
/// <param name="What">What it is, as a shopper would say it.</param>
/// <param name="ByFacet">What is true of it, by facet; a facet that is not there has no true value.</param>
public sealed record FactWords(string What, IReadOnlyDictionary<Facet, IReadOnlyList<string>> ByFacet)
{
    /// <summary>The words of a text by which it is compared with facts: in any form, stop words left out.</summary>
    public static IEnumerable<string> KeysOf(string text) =>
        Tokens.Of(text).Where(t => !StopWords.Has(t.Word)).Select(t => Fold.Key(t.Word, Fold.AnyForm));
}
