using TinRabbit.Core.Filling.Words;
using TinRabbit.Core.Matching;
using TinRabbit.Core.Measures;
using TinRabbit.Core.Platforms;
using TinRabbit.Core.Words;

namespace TinRabbit.Core.Filling.Tags;

/// <summary>Phrases for a field of tags.</summary>
/// <param name="Items">The whole field: what stood there, and what was added.</param>
/// <param name="Added">The added items.</param>
/// <param name="Grip">The listing's with it, 0–100.</param>
/// <param name="Before">The listing's without it, 0–100.</param>
/// <param name="Opens">Terms that were missing and are held with it, the worthiest first.</param>
/// <param name="Left">Terms that stay missing, the worthiest first.</param>
public sealed record TagsFill(IReadOnlyList<string> Items, IReadOnlyList<string> Added, double Grip, double Before, IReadOnlyList<string> Opens, IReadOnlyList<string> Left)
{
    private const int Unlimited = 60;

    /// <summary>
    /// Fills the free slots with picks, weaves of picks, and parts of picks too long for one slot, so that the listing's grip is greatest.
    /// What stands in the field stays, empty slots aside; the lead comes first. No phrase is there twice, nor in another order.
    /// </summary>
    /// <param name="platform">Its limits and folds.</param>
    /// <param name="copy">The listing's fields.</param>
    /// <param name="key">The field to fill, a list of phrases.</param>
    /// <param name="terms">The terms wanted.</param>
    /// <param name="avoid">Terms to avoid.</param>
    /// <param name="lead">The term that comes first; null for the worthiest of those chosen.</param>
    /// <param name="notHere">Terms that the seller wants elsewhere: they count, but are not said here.</param>
    /// <param name="stop">Stops the search.</param>
    /// <exception cref="FormatProblems">There is no such field, or it is not a list of phrases.</exception>
    public static TagsFill Of(
        Platform platform, IReadOnlyDictionary<string, FieldValue> copy, string key, IReadOnlyList<WantedTerm> terms, IReadOnlyList<string> avoid, string? lead = null, IReadOnlySet<string>? notHere = null, CancellationToken stop = default)
    {
        var field = platform.Find(key) ?? throw new FormatProblems([new("field", $"{platform.Name} has no field \"{key}\".")]);
        if (field.Shape != FieldShape.Phrases)
            throw new FormatProblems([new("field", $"{field.Label} is not a list of phrases.")]);
        var avoided = new AvoidedTerms(platform, avoid);
        var wanted = terms.Where(t => WordsFill.Continue(stop) && avoided.UsesIn(t.Text) == 0).ToList();
        string[] standing = [.. (copy.GetValueOrDefault(key)?.Units(field.Shape) ?? []).Where(i => !string.IsNullOrWhiteSpace(i))];
        var before = Weigher.Weigh(platform, copy, wanted, stop);
        var added = new List<string>();
        if (field.Indexed && wanted.Count > 0)
        {
            var candidates = TagCandidates.Build(field, [.. wanted.Where(t => notHere?.Contains(t.Text) != true)], avoided);
            added = new TagSearch(platform, field, copy, standing, candidates, wanted, stop).Choose((field.Limit?.MaxItems ?? Unlimited) - standing.Length, lead);
        }

        var first = lead is null ? -1 : added.FindIndex(a => Tokens.Key(a) == Tokens.Key(lead));
        string[] items = first == 0 ? [added[0], .. standing, .. added[1..]] : [.. standing, .. added];
        var after = Weigher.Weigh(platform, new Dictionary<string, FieldValue>(copy) { [key] = new FieldValue.Items(items) }, wanted, stop);
        var opened = Enumerable.Range(0, wanted.Count).Where(i => before.Terms[i].Grade == Grade.Missing && after.Terms[i].Grade != Grade.Missing).Select(i => wanted[i]);
        return new(
            items, added, after.Grip, before.Grip, WordsFill.Worthiest(opened),
            WordsFill.Worthiest(terms.Except(wanted.Where((_, i) => after.Terms[i].Grade != Grade.Missing))));
    }
}
