using TinRabbit.Core.Words;

namespace TinRabbit.Core.Measures;

/// <summary>The fit that a term deserves by a product's facts, before the seller says otherwise.</summary>
public static class FitByFacts
{
    /// <summary>
    /// Stretch where the term claims what the facts lack; core where it has every word of what the product is; good otherwise.
    /// Core too where the facts do not say what the product is.
    /// </summary>
    public static Fit Of(string term, FactWords facts)
    {
        if (Tokens.Key(facts.What).Length == 0)
            return Fit.Core;
        if (Facets.Unbacked(term, facts).Count > 0)
            return Fit.Stretch;
        var words = FactWords.KeysOf(term).ToHashSet();
        return FactWords.KeysOf(facts.What).All(words.Contains) ? Fit.Core : Fit.Good;
    }
}
