using TinRabbit.Core.Filling;
using TinRabbit.Core.Platforms;

namespace TinRabbit.Core.Moves;

/// <summary>Some picks put into a listing, one after another: each by the move that gains most at its time and takes no other pick out.</summary>
/// <param name="Values">The new values of the fields that change, by key.</param>
/// <param name="Placed">The picks that have a place, in the order in which they were placed.</param>
/// <param name="Gain">Grip after it − grip before.</param>
/// <param name="Reach">Reach after it − reach before.</param>
/// <param name="LeftOut">Those that no field which may change can have, with the reason.</param>
public sealed record MovesToPlace(
    IReadOnlyDictionary<string, FieldValue> Values,
    IReadOnlyList<string> Placed,
    double Gain,
    double Reach,
    IReadOnlyList<LeftOut> LeftOut
)
{
    /// <summary>Most picks that are placed at once.</summary>
    public const int MostTerms = 30;

    /// <summary>Places picks in one field, or each in the field where it gains most.</summary>
    /// <param name="input">The listing; the picks to place are among its picks.</param>
    /// <param name="terms">The picks to place, as they are written there.</param>
    /// <param name="field">The key of the only field that may change; null for any.</param>
    /// <param name="stop">Stops the search.</param>
    public static MovesToPlace Of(MovesInput input, IReadOnlyCollection<string> terms, string? field, CancellationToken stop = default)
    {
        var others = input.Platform.Fields.Where(f => field is not null && f.Key != field).Select(f => f.Key);
        var left = terms.Distinct(StringComparer.Ordinal).Take(MostTerms).ToHashSet(StringComparer.Ordinal);
        input = input with { LeftAlone = input.LeftAlone.Concat(others).ToHashSet() };
        IReadOnlyList<LeftOut>? leftOut = null;
        var (values, placed, gain, reach) = (new Dictionary<string, FieldValue>(), new List<string>(), 0.0, 0.0);
        while (left.Count > 0)
        {
            var found = MoveSearch.Of(input with { Only = left }, stop);
            leftOut ??= [.. found.LeftOut.Where(l => left.Contains(l.Text))];
            var best = found.Moves.FirstOrDefault(m => m.Gain > 0 && m.Loses.Count == 0 && m.Pick is { } pick && left.Contains(pick));
            if (best is null)
                break;
            (values[best.Field], gain, reach) = (best.Value, gain + best.Gain, reach + best.Reach);
            placed.Add(best.Pick!);
            left.Remove(best.Pick!);
            input = input.After(best);
        }

        return new(values, placed, gain, reach, leftOut ?? []);
    }
}
