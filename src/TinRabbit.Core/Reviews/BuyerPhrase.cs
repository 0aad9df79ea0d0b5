namespace TinRabbit.Core.Reviews;

/// <summary>A phrase that buyers of one seller use more than those of others.</summary>
/// <param name="Text">One to four words, joined by single spaces.</param>
/// <param name="Z">How far beyond chance: more than 0 where it marks the first reviews, less where it marks the others.</param>
/// <param name="Mine">How many of the first reviews contain it.</param>
/// <param name="Theirs">How many of the others do.</param>
/// <param name="Stars">The mean stars of the reviews that contain it; null where none of them has any.</param>
/// <param name="Sentences">Up to three sentences with it, from the reviews that it marks.</param>
public sealed record BuyerPhrase(string Text, double Z, int Mine, int Theirs, double? Stars, IReadOnlyList<string> Sentences);
