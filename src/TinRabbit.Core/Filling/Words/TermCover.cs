namespace TinRabbit.Core.Filling.Words;

/// <summary>One way to open a term.</summary>
/// <param name="Term">Number of the term.</param>
/// <param name="Items">Words that must be added, each once.</param>
/// <param name="Phrase">Words that should stand side by side in this order; null where some stand already, so that they cannot.</param>
/// <param name="MustBeAdjacent">Whether the term opens only if they do.</param>
internal sealed record TermCover(int Term, int[] Items, int[]? Phrase, bool MustBeAdjacent);
