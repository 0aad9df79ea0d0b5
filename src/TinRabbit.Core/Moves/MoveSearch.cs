using TinRabbit.Core.Filling;
using TinRabbit.Core.Matching;
using TinRabbit.Core.Measures;
using TinRabbit.Core.Platforms;

namespace TinRabbit.Core.Moves;

/// <summary>
/// Finds the single edits of a listing that raise its grip (docs/model.md, "Moves"). Every edit is tried on its field alone, which is exact;
/// those that are listed are weighed once more with the whole listing.
/// </summary>
public sealed class MoveSearch
{
    // Moves that are listed for one slot: the screen folds them under the best.
    private const int MostInSlot = 8;
    private const double Rounding = 1e-9;

    private readonly MovesInput _input;
    private readonly CancellationToken _stop;
    private readonly TermSet _terms;
    private readonly Weighing _before;

    private MoveSearch(MovesInput input, CancellationToken stop)
    {
        (_input, _stop) = (input, stop);
        _terms = TermSet.Prepare(input.Platform, [.. input.Terms.Select(t => t.Text)]);
        _before = Weigher.Weigh(_terms, input.Copy, input.Terms, stop);
    }

    /// <summary>The moves of a listing.</summary>
    /// <exception cref="InvalidInputException">A term has no word.</exception>
    public static MoveList Of(MovesInput input, CancellationToken stop = default) => new MoveSearch(input, stop).Find();

    private MoveList Find()
    {
        var fields = _input
            .Platform.IndexedFields.Where(f => f.Weight > 0 && FieldSearch.CanSearch(f) && !_input.LeftAlone.Contains(f.Key))
            .ToList();
        var found = new IReadOnlyList<(Candidate Candidate, double Gripped)>[fields.Count];
        var forbidden = new AvoidedTerms(_input.Platform, MoveRules.ForbiddenBy(_input));
        var placements = new Placements(_input.Platform, _input.Terms, _input.Lead, _input.Facts, forbidden);
        var rules = fields.ConvertAll(f => new MoveRules(_input, placements, forbidden, f));
        try
        {
            Parallel.For(
                0,
                fields.Count,
                new ParallelOptions { CancellationToken = _stop },
                i => found[i] = new FieldSearch(_input, rules[i], _terms, fields[i], _stop).Find()
            );
        }
        catch (AggregateException e) when (e.InnerExceptions.All(i => i is OperationCanceledException))
        {
            throw new OperationCanceledException(_stop);
        }

        return new(_before.Grip, _before.Reach, Ranked(found.SelectMany(f => f)), LeftOut([.. rules.Select(r => r.LeftOut)]));
    }

    // What no field has a place for, with the reason that the first field gives.
    private static IReadOnlyList<LeftOut> LeftOut(IReadOnlyList<IReadOnlyList<LeftOut>> byField) =>
        byField.Count == 0 ? [] : [.. byField[0].Where(one => byField.All(f => f.Any(other => other.Text == one.Text)))];

    // The best of each pick and kind, each text once, by gain and then by how little it changes; as many slots as are asked for.
    private List<Move> Ranked(IEnumerable<(Candidate Candidate, double Gripped)> found)
    {
        var best = found
            .Select(f => (f.Candidate, f.Gripped, Changed: Changed(f.Candidate)))
            .OrderByDescending(f => f.Gripped)
            .ThenBy(f => f.Changed)
            .DistinctBy(f => f.Candidate.Pick < 0 ? (f.Candidate.Kind, f.Candidate.Text) : (f.Candidate.Kind, $"{f.Candidate.Pick}"))
            .DistinctBy(f => (f.Candidate.Field.Key, TextOf(f.Candidate.Field, f.Candidate.Value)));
        var (moves, slots) = (new List<Move>(), new Dictionary<string, int>(StringComparer.Ordinal));
        foreach (var (candidate, _, changed) in best)
        {
            if (!slots.TryGetValue(candidate.Slot, out var inSlot) && slots.Count == _input.Most)
                continue;
            if (inSlot == MostInSlot || Weighed(candidate, changed) is not { } move)
                continue;
            slots[candidate.Slot] = inSlot + 1;
            moves.Add(move);
        }

        return [.. moves.OrderByDescending(m => m.Gain).ThenBy(m => m.Changed)];
    }

    // Null where it gains nothing, and where a cut lowers a grade without a gain.
    private Move? Weighed(Candidate candidate, int changed)
    {
        var copy = new Dictionary<string, FieldValue>(_input.Copy) { [candidate.Field.Key] = candidate.Value };
        var after = Weigher.Weigh(_terms, copy, _input.Terms, _stop);
        var gain = after.Grip - _before.Grip;
        if (gain <= 0 && !(candidate.Kind == MoveKind.Free && gain >= -Rounding && LowersNoGrade(after, candidate.Field)))
            return null;
        return new(
            candidate.Kind,
            candidate.Field.Key,
            candidate.Item,
            candidate.Slot,
            candidate.Text,
            candidate.Value,
            gain,
            after.Reach - _before.Reach,
            [
                .. Enumerable
                    .Range(0, _input.Terms.Count)
                    .Where(i => _before.Terms[i].Grade != Grade.Missing && after.Terms[i].Grade == Grade.Missing)
                    .Select(i => _input.Terms[i].Text),
            ]
        )
        {
            Pick = candidate.Pick < 0 ? null : _input.Terms[candidate.Pick].Text,
            Changed = changed,
        };
    }

    private bool LowersNoGrade(Weighing after, Field field)
    {
        var at = _input.Platform.IndexedFields.ToList().FindIndex(f => f.Key == field.Key);
        for (var i = 0; i < _input.Terms.Count; i++)
            if (
                after.Terms[i].Grade < _before.Terms[i].Grade
                || after.Terms[i].Explain().Fields[at] < _before.Terms[i].Explain().Fields[at]
            )
                return false;
        return true;
    }

    private int Changed(Candidate candidate)
    {
        var before = _input.Copy.TryGetValue(candidate.Field.Key, out var value) ? TextOf(candidate.Field, value) : "";
        var after = TextOf(candidate.Field, candidate.Value);
        var (start, end, most) = (0, 0, Math.Min(before.Length, after.Length));
        while (start < most && before[start] == after[start])
            start++;
        while (end < most - start && before[^(end + 1)] == after[^(end + 1)])
            end++;
        return Math.Max(before.Length, after.Length) - start - end;
    }

    private static string TextOf(Field field, FieldValue value) => string.Join('\n', value.Units(field.Shape));
}
