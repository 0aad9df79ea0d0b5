using TinRabbit.Core.Matching;
using TinRabbit.Core.Measures;
using TinRabbit.Core.Platforms;

namespace TinRabbit.Core.Moves;

/// <summary>Looks for the moves within one field. Fields know nothing of each other, so that they can be searched side by side.</summary>
internal sealed class FieldSearch
{
    // Up to so many picks, each is tried everywhere; beyond, only as far as its gain could come into the list.
    private const int PicksTriedAll = 150;

    // Replacing a tag costs what it holds: for very many picks, the cheapest are tried, and those that share words with the pick.
    private const int TagsTried = 2;

    // Two edits of the list can make the same text, so that a few more are kept than are listed.
    private const int KeptBeyond = 10;

    private readonly MovesInput _input;
    private readonly MoveRules _rules;
    private readonly TermSet _terms;
    private readonly Weighing _before;
    private readonly Field _field;
    private readonly OneFieldWeigher _weigher;
    private readonly CancellationToken _stop;

    // A cut repeat needs no gain; this is what rounding may take from it.
    private readonly double _least;
    private readonly List<(Candidate Candidate, double Gripped)> _found = [];
    private readonly SortedSet<(double Gain, int Pick, MoveKind Kind)> _best = [];
    private readonly Dictionary<(int Pick, MoveKind Kind), double> _bestOf = [];

    public FieldSearch(MovesInput input, MoveRules rules, TermSet terms, Field field, CancellationToken stop)
    {
        (_input, _rules, _terms, _field, _stop) = (input, rules, terms, field, stop);
        // One of its own: a weighing is explained by one thread at a time.
        _before = Weigher.Weigh(terms, input.Copy, input.Terms, stop);
        _least = -1e-9 * _before.Worth.All;
        _weigher = new(terms, input.Copy, input.Terms, field);
    }

    /// <summary>Whether there are moves in a field at all: text that is written as sentences is left to the seller.</summary>
    public static bool CanSearch(Field field) =>
        field is { Role: "title", Shape: FieldShape.Line or FieldShape.Text } or { Role: "bullets", Shape: FieldShape.Lines }
        || field.Shape is FieldShape.Phrases or FieldShape.Words or FieldShape.Choices;

    /// <summary>The edits that raise the grip, each with Σ worth·grip after it.</summary>
    public IReadOnlyList<(Candidate Candidate, double Gripped)> Find()
    {
        var title = _field is { Role: "title", Shape: FieldShape.Line or FieldShape.Text } ? new TitleMoves(_input, _rules, _field) : null;
        foreach (var candidate in Rearranged(title))
            Try(candidate);
        if (Adder(title) is not { } added)
            return _found;
        if (_rules.Usable.Count <= PicksTriedAll)
        {
            foreach (var pick in _rules.Usable)
            foreach (var candidate in added(pick))
                Try(candidate);
            return _found;
        }

        // The most promising first: once the list is full of better moves, the rest can't come into it.
        var bounds = new GainBounds(_input, _terms, _before, _field);
        foreach (var (pick, bound) in _rules.Usable.Select(p => (p, bounds.Of(p))).OrderByDescending(p => p.Item2))
        {
            if (_best.Count == _input.Most + KeptBeyond && bound <= _best.Min.Gain)
                break;
            foreach (var candidate in added(pick))
                Try(candidate);
        }

        return _found;
    }

    // What moves or cuts words that the field has.
    private IEnumerable<Candidate> Rearranged(TitleMoves? title)
    {
        if (title is not null)
            return _rules
                .Usable.Select(title.Moved)
                .OfType<Candidate>()
                .Concat(_rules.Usable.SelectMany(p => Whole(p)).Where(title.KeepsWordUses))
                .Concat(title.Repeats());
        return _field.Shape switch
        {
            FieldShape.Phrases => _rules.Usable.SelectMany(p => Whole(p)),
            FieldShape.Words => _rules.Usable.SelectMany(p => Whole(p)).Concat(OtherMoves.Repeats(_input, _rules, _field)),
            _ => [],
        };
    }

    // What brings a pick's words into the field; null where the field is no place for them.
    private Func<int, IEnumerable<Candidate>>? Adder(TitleMoves? title) =>
        title is not null
            ? title.Added
            : _field.Shape switch
            {
                FieldShape.Phrases => TagsWith(new TagMoves(_input, _rules, _field)),
                FieldShape.Lines when _field.Role == "bullets" => p => One(OtherMoves.ClosingLine(_input, _rules, p, _field)),
                FieldShape.Words => p => IsMissing(p) ? One(OtherMoves.Words(_input, _rules, p, _field, MissingWords(p))) : [],
                FieldShape.Choices => p => IsMissing(p) ? OtherMoves.Attributes(_input, _rules, p, _field, MissingWords(p)) : [],
                _ => null,
            };

    private Func<int, IEnumerable<Candidate>> TagsWith(TagMoves tags)
    {
        var cheapest = Enumerable
            .Range(0, tags.HasRoom ? 0 : tags.Count)
            .Select(i => (Item: i, Gripped: _weigher.Gripped(tags.Without(i))))
            .OrderByDescending(t => t.Gripped)
            .ThenBy(t => t.Item)
            .Select(t => t.Item)
            .ToList();
        var tried = _rules.Usable.Count <= PicksTriedAll ? tags.Count : TagsTried;
        return pick =>
            tags.HasRoom
                ? One(tags.Added(pick))
                : cheapest.Take(tried).Concat(tags.Sharing(pick)).Distinct().Select(i => tags.Exchanged(pick, i)).OfType<Candidate>();
    }

    private static IEnumerable<Candidate> One(Candidate? candidate) => candidate is null ? [] : [candidate];

    private void Try(Candidate candidate)
    {
        _stop.ThrowIfCancellationRequested();
        var gripped = _weigher.Gripped(candidate.Value);
        var gain = gripped - _before.Worth.Gripped;
        if (candidate.Kind == MoveKind.Free ? gain < _least : gain <= 0)
            return;
        _found.Add((candidate, gripped));
        Keep(candidate, gain);
    }

    private IEnumerable<Candidate> Whole(int pick) =>
        _before.Terms[pick].Grade is Grade.Whole or Grade.Missing ? [] : OtherMoves.Whole(_input, _rules, pick, _field);

    private bool IsMissing(int pick) => _before.Terms[pick].Grade == Grade.Missing;

    private IReadOnlyList<string> MissingWords(int pick) => _before.Terms[pick].Explain().Missing;

    // Remembers the best gain of each pick and kind, as many as can come into the list.
    private void Keep(Candidate candidate, double gain)
    {
        var key = (candidate.Pick, candidate.Kind);
        if (_bestOf.TryGetValue(key, out var before))
        {
            if (before >= gain)
                return;
            _best.Remove((before, candidate.Pick, candidate.Kind));
        }

        _bestOf[key] = gain;
        _best.Add((gain, candidate.Pick, candidate.Kind));
        if (_best.Count > _input.Most + KeptBeyond)
            _best.Remove(_best.Min);
    }
}
