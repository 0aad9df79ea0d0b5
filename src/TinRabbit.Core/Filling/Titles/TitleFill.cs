using TinRabbit.Core.Filling.Words;
using TinRabbit.Core.Matching;
using TinRabbit.Core.Measures;
using TinRabbit.Core.Platforms;

namespace TinRabbit.Core.Filling.Titles;

/// <summary>Titles that use the room for the most grip (docs/model.md, "Fills").</summary>
public static class TitleFill
{
    /// <summary>Most takes that are made.</summary>
    public const int MostTakes = 5;

    /// <summary>The threshold in a profile that says that a word said twice is paid twice.</summary>
    public const string RepeatsPay = "titleRepeatsPay";

    /// <summary>
    /// Makes up to five different titles: picks one after another, what the end of one and the beginning of the next share said once, no
    /// word twice unless the profile says that repeats pay, the lead first. What stands in the field does not count.
    /// </summary>
    /// <param name="platform">Its limits and folds.</param>
    /// <param name="copy">The listing's fields.</param>
    /// <param name="key">The field to fill, one line.</param>
    /// <param name="terms">The terms wanted.</param>
    /// <param name="avoid">Terms to avoid.</param>
    /// <param name="lead">The term that comes first; null where any may.</param>
    /// <param name="notHere">Terms that the seller wants elsewhere: they count, but are not said here.</param>
    /// <param name="stop">Stops the search.</param>
    /// <exception cref="FormatProblems">There is no such field, or it is no line of text that the search reads.</exception>
    public static IReadOnlyList<Take> Of(
        Platform platform, IReadOnlyDictionary<string, FieldValue> copy, string key, IReadOnlyList<WantedTerm> terms, IReadOnlyList<string> avoid, string? lead = null, IReadOnlySet<string>? notHere = null, CancellationToken stop = default)
    {
        var field = platform.Find(key) ?? throw new FormatProblems([new("field", $"{platform.Name} has no field \"{key}\".")]);
        if (field.Shape is not (FieldShape.Line or FieldShape.Text))
            throw new FormatProblems([new("field", $"{field.Label} is not a line of text.")]);
        if (!field.Indexed)
            throw new FormatProblems([new("field", $"{platform.Name} does not search {field.Label}, so words there bring no searches.")]);
        var avoided = new AvoidedTerms(platform, avoid);
        var wanted = terms.Where(t => WordsFill.Continue(stop) && avoided.UsesIn(t.Text) == 0).OrderByDescending(t => t.Worth()).ToList();
        if (wanted.Count == 0)
            return [];
        var ready = TermSet.Prepare(platform, [.. wanted.Select(t => t.Text)]);
        var search = new TitleSearch(field, platform, copy, ready, wanted, avoided, lead, notHere, stop);
        var found = new List<int[]>();
        for (var take = 0; take < MostTakes && search.FindNext(found) is { } plan; take++)
            found.Add(plan);
        var takes = new List<Take>();
        foreach (var text in found.Select(search.TextOf).Distinct(StringComparer.Ordinal).Where(t => avoided.UsesIn(t) == 0))
        {
            var weighed = Weigher.Weigh(ready, new Dictionary<string, FieldValue>(copy) { [key] = new FieldValue.Text(text) }, wanted, stop);
            var at = platform.IndexedFields.ToList().FindIndex(f => f.Key == key);
            takes.Add(new(text, RoomUsed.Measure(text, field.Limit?.Unit ?? Unit.Characters), weighed.Grip,
                [.. weighed.Terms.Where(t => t.Grade == Grade.Whole && t.Explain().Fields[at] == Grade.Whole).Select(t => t.Term.Text)]));
        }

        return [.. takes.OrderByDescending(t => t.Grip)];
    }
}
