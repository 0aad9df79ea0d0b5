namespace TinRabbit.Core.Filling.Titles;

/// <summary>One or two words of a term, by their places in it.</summary>
/// <param name="Term">The number of the term.</param>
/// <param name="First">The place of the first.</param>
/// <param name="Second">The place of the second; −1 where it is one word.</param>
internal readonly record struct Fragment(int Term, int First, int Second)
{
    /// <summary>The place of its last word.</summary>
    public int Last => Second < 0 ? First : Second;
}
