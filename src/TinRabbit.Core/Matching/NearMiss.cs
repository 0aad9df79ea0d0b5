namespace TinRabbit.Core.Matching;

/// <summary>A missing word that the listing has in a form which this platform does not fold.</summary>
/// <param name="Needs">The word, or the two words, in the term.</param>
/// <param name="Has">The form that the listing has.</param>
/// <param name="Fold">The fold that would make them the same; several joined by + where one alone would not.</param>
public sealed record NearMiss(string Needs, string Has, string Fold);
