namespace TinRabbit.Core.Words;

/// <summary>A word or phrase that describes a product.</summary>
/// <param name="Facet">What it is about.</param>
/// <param name="Word">As written in the text.</param>
/// <param name="Start">Where it begins, in UTF-16 units of the text.</param>
/// <param name="Length">How long it is, in UTF-16 units.</param>
public sealed record Claim(Facet Facet, string Word, int Start, int Length);
