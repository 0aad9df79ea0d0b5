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
    // Replacing a tag costs what it holds: of many, the cheapest are tried for each pick, and those that share words with it.
    private const int TagsTried = 2;
    private const int ExchangesTried = 1500;

    private readonly MovesInput _input;
    private readonly CancellationToken _stop;
    private readonly MoveRules _rules;
    private readonly TermSet _terms;
    private readonly Weighing _before;
    private readonly List<(Candidate Candidate, double Gripped)> _found = [];

    private MoveSearch(MovesInput input, CancellationToken stop)
    {
        (_input, _stop, _rules) = (input, stop, new(input));
        _terms = TermSet.Prepare(input.Platform, [.. input.Terms.Select(t => t.Text)]);
        _before = Weigher.Weigh(_terms, input.Copy, input.Terms, stop);
    }

    /// <summary>The moves of a listing.</summary>
    /// <exception cref="InvalidInputException">A term has no word.</exception>
    public static MoveList Of(MovesInput input, CancellationToken stop = default) => new MoveSearch(input, stop).Find();

    private MoveList Find()
    {
        foreach (var field in _input.Platform.IndexedFields.Where(f => f.Weight > 0))
        {
            var weigher = new OneFieldWeigher(_terms, _input.Copy, _input.Terms, field);
            foreach (var candidate in CandidatesIn(field, weigher))
            {
                _stop.ThrowIfCancellationRequested();
                _found.Add((candidate, weigher.Gripped(candidate.Value)));
            }
        }

        return new(_before.Grip, _before.Reach, Ranked());
    }

    private IEnumerable<Candidate> CandidatesIn(Field field, OneFieldWeigher weigher) =>
        field.Shape switch
        {
            FieldShape.Line or FieldShape.Text when field.Role == "title" => TitleCandidates(field),
            FieldShape.Phrases => TagCandidates(field, weigher).Concat(_rules.Usable.SelectMany(p => Whole(p, field))),
            FieldShape.Lines when field.Role == "bullets" => _rules
                .Usable.Select(p => OtherMoves.ClosingLine(_input, _rules, p, field))
                .OfType<Candidate>(),
            FieldShape.Words => _rules
                .Usable.Where(IsMissing)
                .Select(p => OtherMoves.Words(_input, _rules, p, field, MissingWords(p)))
                .OfType<Candidate>()
                .Concat(_rules.Usable.SelectMany(p => Whole(p, field)))
                .Concat(OtherMoves.Repeats(_input, _rules, field)),
            FieldShape.Choices => _rules
                .Usable.Where(IsMissing)
                .SelectMany(p => OtherMoves.Attributes(_input, _rules, p, field, MissingWords(p))),
            _ => [],
        };

    private IEnumerable<Candidate> TitleCandidates(Field field)
    {
        var title = new TitleMoves(_input, _rules, field);
        return _rules.Usable.SelectMany(p => title.Of(p).Concat(Whole(p, field))).Concat(title.Repeats());
    }

    private IEnumerable<Candidate> TagCandidates(Field field, OneFieldWeigher weigher)
    {
        var tags = new TagMoves(_input, _rules, field);
        var withoutAny = Enumerable.Range(0, tags.Count).Select(i => (Item: i, Gripped: weigher.Gripped(tags.Without(i)))).ToList();
        var cheapest = withoutAny.OrderByDescending(t => t.Gripped).ThenBy(t => t.Item).Select(t => t.Item).ToList();
        var tried = _rules.Usable.Count * tags.Count <= ExchangesTried ? tags.Count : TagsTried;
        var before = _before.Worth.Gripped;
        foreach (var pick in _rules.Usable)
        {
            if (tags.Added(pick) is not { } added)
                continue;
            // A tag can also gain by what it replaces: words in one field can count for less than the same words in several.
            if (weigher.Gripped(added.Value) <= before && tried < tags.Count)
                continue;
            if (tags.HasRoom)
            {
                if (_rules.Allows(field, added.Value))
                    yield return added;
                continue;
            }

            foreach (var item in cheapest.Take(tried).Concat(tags.Sharing(pick)).Distinct())
                if (tags.Exchanged(pick, item) is { } exchanged)
                    yield return exchanged;
        }
    }

    private IEnumerable<Candidate> Whole(int pick, Field field) =>
        _before.Terms[pick].Grade is Grade.Whole or Grade.Missing ? [] : OtherMoves.Whole(_input, _rules, pick, field);

    private bool IsMissing(int pick) => _before.Terms[pick].Grade == Grade.Missing;

    private IReadOnlyList<string> MissingWords(int pick) => _before.Terms[pick].Explain().Missing;

    // The best of each pick and kind, each text once, by gain and then by how little it changes.
    private List<Move> Ranked()
    {
        var best = _found
            .Where(f => f.Gripped > _before.Worth.Gripped)
            .Select(f => (f.Candidate, f.Gripped, Changed: Changed(f.Candidate)))
            .OrderByDescending(f => f.Gripped)
            .ThenBy(f => f.Changed)
            .DistinctBy(f => f.Candidate.Pick < 0 ? (f.Candidate.Kind, f.Candidate.Text) : (f.Candidate.Kind, $"{f.Candidate.Pick}"))
            .DistinctBy(f => (f.Candidate.Field.Key, TextOf(f.Candidate.Field, f.Candidate.Value)))
            .Take(_input.Most)
            .ToList();
        return
        [
            .. best.Select(f => Weighed(f.Candidate, f.Changed))
                .Where(m => m.Gain > 0)
                .OrderByDescending(m => m.Gain)
                .ThenBy(m => m.Changed),
        ];
    }

    private Move Weighed(Candidate candidate, int changed)
    {
        var copy = new Dictionary<string, FieldValue>(_input.Copy) { [candidate.Field.Key] = candidate.Value };
        var after = Weigher.Weigh(_terms, copy, _input.Terms, _stop);
        return new(
            candidate.Kind,
            candidate.Field.Key,
            candidate.Item,
            candidate.Text,
            candidate.Value,
            after.Grip - _before.Grip,
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
