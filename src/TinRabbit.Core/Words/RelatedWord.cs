namespace TinRabbit.Core.Words;

/// <summary>A word alike to another.</summary>
/// <param name="Word">It, with spaces where it is several words.</param>
/// <param name="Part">noun, verb, adjective or adverb.</param>
/// <param name="Likeness">How it is alike.</param>
/// <param name="Sense">In which meaning of the word, the commonest being 0.</param>
public sealed record RelatedWord(string Word, string Part, Relation Likeness, int Sense);
