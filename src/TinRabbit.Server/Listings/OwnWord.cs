namespace TinRabbit.Server.Listings;

/// <summary>A word that the seller says more about than the vocabulary does.</summary>
/// <param name="Word">As typed.</param>
/// <param name="Facet">What it claims; null where it claims nothing.</param>
public sealed record OwnWord(string Word, Facet? Facet)
{
    /// <summary>Words by the keys under which they are found.</summary>
    public static IReadOnlyDictionary<string, Facet?> ByKey(IEnumerable<OwnWord> words)
    {
        var byKey = new Dictionary<string, Facet?>(StringComparer.Ordinal);
        foreach (var word in words)
            byKey[FactWords.OwnKeyOf(word.Word)] = word.Facet;
        return byKey;
    }
}
