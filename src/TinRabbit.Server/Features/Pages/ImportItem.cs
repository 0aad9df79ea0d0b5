namespace TinRabbit.Server.Features.Pages;

/// <summary>Something that an import would create or change.</summary>
/// <param name="Key">Names it in the choice of what to import.</param>
/// <param name="What">What it is, as a word: page, product, listing on a platform, settings.</param>
/// <param name="Changes">What would be different, by field.</param>
public sealed record ImportItem(string Key, string What, string Name, ImportState State, IReadOnlyList<ItemChange> Changes);
