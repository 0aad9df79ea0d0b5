using TinRabbit.Core.Words;

namespace TinRabbit.Market.StandIn;

/// <summary>The title and the tags of a listing, ready to be searched: their words between spaces.</summary>
internal sealed class SearchedText(string title, IReadOnlyList<string> tags)
{
    private readonly string[] _tags = [.. tags.Select(t => $" {Tokens.Key(t)} ")];

    /// <summary>The title's words.</summary>
    public string Title { get; } = $" {Tokens.Key(title)} ";

    /// <summary>What they count for a search that finds the listing: a phrase in the title more than in a tag, early more than late.</summary>
    public double Score(SearchedPhrase phrase) =>
        Title.Contains(phrase.Phrase, StringComparison.Ordinal)
            ? 3.0 - 1.0 * Title.IndexOf(phrase.Phrase, StringComparison.Ordinal) / Title.Length
        : _tags.Any(t => t.Contains(phrase.Phrase, StringComparison.Ordinal)) ? 1.8
        : phrase.Words.All(w => Title.Contains(w, StringComparison.Ordinal)) ? 1.4
        : 0.6;
}
