namespace TinRabbit.Core.Rivals;

/// <summary>A word or a pair of words in rivals' texts.</summary>
/// <param name="Text">In lower case.</param>
/// <param name="Held">Rivals whose text has it.</param>
/// <param name="Share">Their share of all rivals with such a text, 0–1.</param>
/// <param name="Rank">The mean rank of those that have it, from 1.</param>
/// <param name="Price">The median price of those that have it; null where none shows one.</param>
/// <param name="Differences">How their figures differ from those of the others.</param>
public sealed record RivalWord(
    string Text,
    int Held,
    double Share,
    double Rank,
    double? Price,
    IReadOnlyList<FigureDifference> Differences
);
