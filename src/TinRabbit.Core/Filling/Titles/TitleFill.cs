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
    /// <param name="input">The field, one line, and the terms.</param>
    /// <param name="stop">Stops the search.</param>
    /// <returns>The best first.</returns>
    /// <exception cref="InvalidInputException">There is no such field, or it is no line of text that the search reads.</exception>
    public static IReadOnlyList<Take> Of(FillInput input, CancellationToken stop = default)
    {
        var field = input.Field;
        if (field.Shape is not (FieldShape.Line or FieldShape.Text))
            throw new InvalidInputException([new("field", $"{field.Label} is not a line of text.")]);
        field = input.IndexedField;
        var avoided = new AvoidedTerms(input.Platform, input.Avoid);
        List<WantedTerm> wanted = [.. input.AllowedTerms(avoided).OrderByDescending(t => t.Worth())];
        if (wanted.Count == 0)
            return [];
        var prepared = TermSet.Prepare(input.Platform, [.. wanted.Select(t => t.Text)]);
        var search = new TitleSearch(new TitleState(field, input, prepared, wanted, avoided), input, wanted, stop);
        var found = new List<int[]>();
        for (var take = 0; take < MostTakes && search.FindNext(found) is { } plan; take++)
            found.Add(plan);
        var at = input.Platform.IndexedFields.ToList().FindIndex(f => f.Key == input.Key);
        var takes = new List<Take>();
        foreach (var text in found.Select(search.TextOf).Distinct(StringComparer.Ordinal).Where(t => avoided.UsesIn(t) == 0))
        {
            var weighed = Weigher.Weigh(prepared, input.With(new FieldValue.Text(text)), wanted, stop);
            takes.Add(
                new(
                    text,
                    TextLength.Of(text, field.Limit?.Unit ?? Unit.Characters),
                    weighed.Grip,
                    [.. weighed.Terms.Where(t => t.Grade == Grade.Whole && t.Explain().Fields[at] == Grade.Whole).Select(t => t.Term.Text)]
                )
            );
        }

        return [.. takes.OrderByDescending(t => t.Grip)];
    }
}
