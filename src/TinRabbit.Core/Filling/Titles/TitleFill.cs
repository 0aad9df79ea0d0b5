using TinRabbit.Core.Findings;
using TinRabbit.Core.Matching;
using TinRabbit.Core.Measures;
using TinRabbit.Core.Platforms;

namespace TinRabbit.Core.Filling.Titles;

/// <summary>Titles that use the room for the most grip (docs/model.md, "Fill").</summary>
/// <param name="Takes">Different titles, the best first.</param>
/// <param name="LeftOut">Terms that may not stand in the title, or are too long for it.</param>
public sealed record TitleFill(IReadOnlyList<Take> Takes, IReadOnlyList<LeftOut> LeftOut)
{
    /// <summary>Most takes that are made.</summary>
    public const int MostTakes = 5;

    // The first take has the whole search; each other one has less.
    private const double ShareOfOthers = 0.2;

    /// <summary>
    /// Makes up to five different titles: picks one after another, what the end of one and the beginning of the next share said once, the lead
    /// first; then single words and pairs that complete picks, until nothing that fits gains. A word comes as often as the profile allows, and
    /// in one take at least only once. What stands in the field does not count.
    /// </summary>
    /// <param name="input">The field, one line, and the terms.</param>
    /// <param name="stop">Stops the search.</param>
    /// <exception cref="InvalidInputException">There is no such field, or it is no line of text that the search reads.</exception>
    public static TitleFill Of(FillInput input, CancellationToken stop = default)
    {
        var field = input.Field;
        if (field.Shape is not (FieldShape.Line or FieldShape.Text))
            throw new InvalidInputException([new("field", $"{field.Label} is not a line of text.")]);
        field = input.IndexedField;
        var avoided = input.Avoided();
        var placement = input.Placement(avoided);
        List<WantedTerm> wanted = [.. input.Terms.OrderByDescending(t => t.Worth())];
        var prepared = TermSet.Prepare(input.Platform, [.. wanted.Select(t => t.Text)]);
        var uses = Math.Max(1, (int)ListingToCheck.ThresholdOf(input.Platform, ListingToCheck.TitleWordUses));
        var title = new TitleState(field, input, prepared, wanted, avoided);
        placement.LeaveOutLong(wanted.Where((t, i) => placement.Allows(t) && title.Table.SizeOf(i) > title.Capacity));
        var found = new List<string>();
        if (wanted.Exists(placement.Allows))
        {
            var search = new TitleSearch(title, input, [.. wanted.Select(placement.Allows)], stop);
            var plans = new List<int[]>();
            // One of them says no word twice; the best may say more behind it.
            var once = uses > 1 ? search.FindNext([], 1, ShareOfOthers) : null;
            if (once is { } single)
                found.Add(single.Text);
            while (
                found.Count < MostTakes
                && search.FindNext(plans, uses, plans.Count == 0 ? 1 : ShareOfOthers, plans.Count == 0 ? once?.Phrases : null) is { } plan
            )
            {
                plans.Add(plan.Terms);
                found.Add(plan.Text);
            }
        }

        var at = input.Platform.IndexedFields.ToList().FindIndex(f => f.Key == input.Key);
        var takes = new List<Take>();
        foreach (var text in found.Distinct(StringComparer.Ordinal))
        {
            var value = new FieldValue.Text(text);
            if (avoided.UsesIn(text) > 0 || !RoomUsed.Of(field, value).Fits)
                continue;
            var weighed = Weigher.Weigh(prepared, input.With(value), wanted, stop);
            takes.Add(
                new(
                    text,
                    TextLength.Of(text, field.Limit?.Unit ?? Unit.Characters),
                    weighed.Grip,
                    [.. weighed.Terms.Where(t => t.Grade == Grade.Whole && t.Explain().Fields[at] == Grade.Whole).Select(t => t.Term.Text)]
                )
            );
        }

        return new([.. takes.OrderByDescending(t => t.Grip)], placement.LeftOut);
    }
}
