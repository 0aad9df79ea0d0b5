namespace TinRabbit.Core.Words;

/// <summary>One word of a text, normalised, with where it stands in the original.</summary>
/// <param name="Word">NFKC, apostrophes made plain, lower case.</param>
/// <param name="Start">Start in the original text, in UTF-16 units.</param>
/// <param name="Length">Length in the original text, in UTF-16 units.</param>
/// <param name="Joined">True when a single hyphen joins this word to the one before it.</param>
public readonly record struct Token(string Word, int Start, int Length, bool Joined)
{
    /// <summary>The first UTF-16 unit of the original after the word.</summary>
    public int End => Start + Length;
}
