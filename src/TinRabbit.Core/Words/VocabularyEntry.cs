namespace TinRabbit.Core.Words;

/// <summary>A word or phrase that can claim something of a product.</summary>
/// <param name="Facet">What it is about; null for phrases in which such a word says something else.</param>
/// <param name="Backing">The keys of facts that make it true: the word itself, words of the same meaning, and narrower ones.</param>
internal sealed record VocabularyEntry(Facet? Facet, IReadOnlySet<string> Backing)
{
    /// <summary>Another facet that it belongs to, as silver is a colour and a material: facts of either make it true. Null for most.</summary>
    public Facet? OtherFacet { get; init; }

    /// <summary>Whether its most frequent sense is another one ("rose"): then it claims something only before the product's noun.</summary>
    public bool IsAmbiguous { get; init; }

    /// <summary>Whether it claims something only where the text says for whom: names of trades and relations are often names of things as well.</summary>
    public bool NeedsContext { get; init; }
}
