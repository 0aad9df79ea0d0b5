namespace TinRabbit.Server.Features.Dig;

/// <summary>The pages that a web search finds for a term.</summary>
/// <param name="Found">Pages found; null where the search does not say it.</param>
/// <param name="Kinds">How many of the first pages are of each kind.</param>
/// <param name="First">The first pages.</param>
/// <param name="Modifiers">Words that the titles add to the term, and how many use each.</param>
/// <param name="Elsewhere">A country where the same search finds other things, so that the term may mean something else here; null where none does.</param>
public sealed record SeenPages(
    long? Found,
    IReadOnlyDictionary<string, int> Kinds,
    IReadOnlyList<WebResult> First,
    IReadOnlyList<UsedWord> Modifiers,
    OtherMeaning? Elsewhere
);
