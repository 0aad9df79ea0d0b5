namespace TinRabbit.Core.Words;

/// <summary>A word, phrase or measure of the vocabulary in a text.</summary>
/// <param name="Key">Its key; empty for a measure.</param>
/// <param name="First">Number of its first token.</param>
/// <param name="Last">Number of its last token.</param>
/// <param name="Start">Where it begins, in UTF-16 units of the text.</param>
/// <param name="End">Where it ends.</param>
internal sealed record FoundWord(string Key, int First, int Last, int Start, int End)
{
    /// <summary>What it can claim; null for a measure.</summary>
    public VocabularyEntry? Entry { get; init; }

    /// <summary>The measure that it is; null for words.</summary>
    public Measure? Measure { get; init; }

    /// <summary>What it is about; null where it says something else.</summary>
    public Facet? Facet => Measure?.Facet ?? Entry?.Facet;

    /// <summary>It as a claim.</summary>
    public Claim ToClaim(string text) => new(Facet!.Value, text[Start..End], Start, End - Start);
}
