namespace TinRabbit.Core.Words;

/// <summary>A term in another language.</summary>
/// <param name="From">As it was.</param>
/// <param name="To">In the other language; null where a word is not in the glossary.</param>
/// <param name="Unknown">The words that are not.</param>
public sealed record Translation(string From, string? To, IReadOnlyList<string> Unknown);
