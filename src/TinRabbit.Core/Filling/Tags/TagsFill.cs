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
public sealed record TagsFill(
    IReadOnlyList<string> Items,
    IReadOnlyList<string> Added,
    double Grip,
    double Before,
    IReadOnlyList<string> Opens,
    IReadOnlyList<string> Left
)
{
    /// <summary>Terms that may not stand in the field, or are too long for it.</summary>
    public IReadOnlyList<LeftOut> LeftOut { get; init; } = [];

    // Slots of a field without a limit.
    private const int Unlimited = 60;

    /// <summary>
    /// Fills the free slots with picks, weaves of picks, and parts of picks too long for one slot, so that the listing's grip is greatest.
    /// What stands in the field stays, empty slots aside; the lead comes first. No phrase is there twice, nor in another order.
    /// </summary>
    /// <param name="input">The field, a list of phrases, and the terms.</param>
    /// <param name="stop">Stops the search.</param>
    /// <exception cref="InvalidInputException">There is no such field, or it is not a list of phrases.</exception>
    public static TagsFill Of(FillInput input, CancellationToken stop = default)
    {
        var field = input.Field;
        if (field.Shape != FieldShape.Phrases)
            throw new InvalidInputException([new("field", $"{field.Label} is not a list of phrases.")]);
        var avoided = input.Avoided();
        var (placement, wanted) = (input.Placement(avoided), input.Terms);
        string[] kept = [.. (input.Copy.GetValueOrDefault(input.Key)?.Units(field.Shape) ?? []).Where(i => !string.IsNullOrWhiteSpace(i))];
        var before = Weigher.Weigh(input.Platform, input.Copy, wanted, stop);
        var added = new List<string>();
        if (field.Indexed && wanted.Count > 0)
        {
            var candidates = TagCandidates.Build(field, [.. wanted.Where(placement.Allows)], avoided, stop);
            placement.LeaveOutLong(candidates.TooLong);
            var phrases = new TagPhrases(
                input.Platform,
                field,
                TermSet.Prepare(input.Platform, [.. wanted.Select(t => t.Text)]),
                wanted,
                kept,
                candidates.Texts,
                stop
            );
            added = new TagSearch(phrases, field, input, wanted, (field.Limit?.MaxItems ?? Unlimited) - kept.Length, stop).Choose();
        }

        var first = input.Lead is null ? -1 : added.FindIndex(a => Tokens.Key(a) == Tokens.Key(input.Lead));
        string[] items = first == 0 ? [added[0], .. kept, .. added[1..]] : [.. kept, .. added];
        var after = Weigher.Weigh(input.Platform, input.With(new FieldValue.Items(items)), wanted, stop);
        var effect = FillEffect.Of(before, after, placement);
        return new(items, added, after.Grip, before.Grip, effect.Opens, effect.Left) { LeftOut = placement.LeftOut };
    }
}
