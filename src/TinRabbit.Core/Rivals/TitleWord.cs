namespace TinRabbit.Core.Rivals;

/// <summary>A word or a pair of words in rivals' titles.</summary>
/// <param name="Text">As most of them write it, in lower case.</param>
/// <param name="Held">Rivals whose title has it.</param>
/// <param name="Share">Their share of all rivals, 0–1.</param>
/// <param name="Differences">How their figures differ from those of the others.</param>
public sealed record TitleWord(string Text, int Held, double Share, IReadOnlyList<FigureDifference> Differences);
