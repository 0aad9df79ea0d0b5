namespace TinRabbit.Core.Matching;

/// <summary>A term that a text holds, or could hold.</summary>
/// <param name="Number">In which order it was added, from 0.</param>
/// <param name="Grade">How firmly the text holds it: whole, inflected or together.</param>
public readonly record struct KnownTerm(int Number, Grade Grade);
