using System.Text.Json.Serialization;
using TinRabbit.Core.Words;

namespace TinRabbit.Core.Reviews;

/// <summary>A phrase that buyers of one seller use more than those of others.</summary>
/// <param name="Text">One to four words, joined by single spaces.</param>
/// <param name="Z">How far beyond chance: more than 0 where it marks the first reviews, less where it marks the others.</param>
/// <param name="Mine">How many of the first reviews contain it.</param>
/// <param name="Theirs">How many of the others do.</param>
/// <param name="Stars">The mean stars of the reviews that contain it; null where none of them has any.</param>
/// <param name="Sentences">Up to three sentences with it, from the reviews that it marks.</param>
public sealed record BuyerPhrase(string Text, double Z, int Mine, int Theirs, double? Stars, IReadOnlyList<string> Sentences)
{
    private const double Pleased = 4;
    private const double Displeased = 3;

    /// <summary>Whether those who use it were pleased.</summary>
    [JsonIgnore]
    public ReviewTone Tone =>
        Stars switch
        {
            >= Pleased => ReviewTone.Praise,
            <= Displeased => ReviewTone.Complaint,
            _ => ReviewTone.Mixed,
        };

    /// <summary>Whether a product's facts say the same: it claims what they have and nothing that they lack, or it has every word of one of them.</summary>
    public bool IsTrueBy(FactWords facts)
    {
        if (Facets.Unbacked(Text, facts).Count > 0)
            return false;
        if (Facets.ClaimsOf(Text).Count > 0)
            return true;
        var words = FactWords.KeysOf(Text).ToHashSet();
        return facts
            .ByFacet.Values.SelectMany(v => v)
            .Select(f => FactWords.KeysOf(f).ToList())
            .Any(f => f.Count > 0 && f.All(words.Contains));
    }
}
