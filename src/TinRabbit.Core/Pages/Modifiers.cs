using TinRabbit.Core.Words;

namespace TinRabbit.Core.Pages;

/// <summary>The words of a page that narrow what it is about, and those that the product's facts would allow.</summary>
public static class Modifiers
{
    /// <summary>
    /// The head noun of a lead: what the product is, where the lead says that (<c>nest box</c> of <c>wren nest box</c>); otherwise its last word
    /// that belongs to no facet; its last word where all do. Empty where it has no word.
    /// </summary>
    public static string HeadOf(string lead, FactWords? facts = null)
    {
        if (facts is { What: { Length: > 0 } what } && Tokens.HasPhrase(lead, what))
            return Tokens.Key(what);
        var words = Tokens.Of(lead).Select(t => t.Word).Where(w => !StopWords.Has(w)).ToList();
        return words.LastOrDefault(w => !Facets.IsFacetWord(w)) ?? words.LastOrDefault() ?? "";
    }

    /// <summary>The modifiers that the texts contain, then those of the facts that they lack.</summary>
    /// <param name="lead">The page's lead.</param>
    /// <param name="texts">Page title, meta description and body, as plain text.</param>
    /// <param name="facts">What is true of what the page is about; null where nothing is known.</param>
    public static IReadOnlyList<Modifier> Of(string lead, IReadOnlyList<string> texts, FactWords? facts)
    {
        var head = HeadOf(lead, facts);
        if (head.Length == 0)
            return [];
        var own = head.Split(' ');
        var found = new Dictionary<string, Modifier>(StringComparer.Ordinal);
        foreach (var word in texts.SelectMany(Tokens.Of).Select(t => t.Word))
            if (
                !own.Contains(word)
                && !StopWords.Has(word)
                && !found.ContainsKey(word)
                && (Facets.IsFacetWord(word) || Thesaurus.IsAdjective(word))
            )
                found[word] = new(word, $"{word} {head}", true);
        foreach (var value in facts?.ByFacet.Values.SelectMany(v => v) ?? [])
            if (Tokens.Key(value) is { Length: > 0 } word && word != head && !texts.Any(t => Tokens.HasPhrase(t, word)))
                found.TryAdd(word, new(word, $"{word} {head}", false));
        return [.. found.Values];
    }
}
