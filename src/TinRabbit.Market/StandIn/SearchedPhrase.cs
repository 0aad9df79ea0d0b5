using TinRabbit.Core.Words;

namespace TinRabbit.Market.StandIn;

/// <summary>A search, ready to be compared with titles and tags whose words are between spaces.</summary>
internal sealed class SearchedPhrase(string term)
{
    /// <summary>Its words, one space between them and around them.</summary>
    public string Phrase { get; } = $" {Tokens.Key(term)} ";

    /// <summary>Each word between spaces.</summary>
    public string[] Words { get; } = [.. Tokens.Of(term).Select(t => $" {t.Word} ")];
}
