using TinRabbit.Core.Filling.Knapsack;
using TinRabbit.Core.Matching;
using TinRabbit.Core.Measures;
using TinRabbit.Core.Platforms;
using TinRabbit.Core.Words;

namespace TinRabbit.Core.Filling.Words;

/// <summary>Words to add to a field so that the listing is found for the most demand.</summary>
/// <param name="Words">What to add, in order; where commas stand between, the words that make a phrase are one entry.</param>
/// <param name="Value">The field with it.</param>
/// <param name="Text">The text that holds the words: the field's, or that of the item they went into.</param>
/// <param name="Used">Room used by <paramref name="Text"/>, in the field's unit.</param>
/// <param name="Limit">The room there is; null when there is no limit.</param>
/// <param name="Gain">Σ demand·fit of the terms that it opens.</param>
/// <param name="Bound">No words that fit could open more than this; at least <paramref name="Gain"/>.</param>
/// <param name="Opens">Terms that were missing and are held with it, the worthiest first.</param>
/// <param name="Left">Terms that stay missing, the worthiest first.</param>
public sealed record WordsFill(
    IReadOnlyList<string> Words,
    FieldValue Value,
    string Text,
    int Used,
    int? Limit,
    double Gain,
    double Bound,
    IReadOnlyList<string> Opens,
    IReadOnlyList<string> Left
)
{
    /// <summary>Terms that may not stand in the field.</summary>
    public IReadOnlyList<LeftOut> LeftOut { get; init; } = [];

    private const int MaxRounds = 4;

    // Of a sentence: the picks that it says, and those of most demand that are tried for it.
    private const int MostPhrases = 5;
    private const int MostTried = 40;

    /// <summary>
    /// Chooses words by the set-union knapsack (docs/model.md, "Fill"). What stands in the field stays. In a list the words become an item
    /// of their own while there is room for one.
    /// </summary>
    /// <param name="input">The field and the terms.</param>
    /// <param name="stop">Stops the search.</param>
    /// <exception cref="InvalidInputException">There is no such field, its search does not read it, or it is no place for words.</exception>
    public static WordsFill Of(FillInput input, CancellationToken stop = default)
    {
        var field = input.IndexedField;
        if (field.Shape is FieldShape.Choices or FieldShape.Path or FieldShape.Rich or FieldShape.Phrases)
            throw new InvalidInputException([new("field", $"{field.Label} is not a field for separate words.")]);
        return new Filler(input, field, stop).Fill();
    }

    /// <summary>A field with some of the words that a fill would add, as that fill would put them.</summary>
    /// <param name="platform">The platform.</param>
    /// <param name="field">The field.</param>
    /// <param name="value">What it holds.</param>
    /// <param name="words">Some of <see cref="Words"/>, in their order.</param>
    public static FieldValue With(Platform platform, Field field, FieldValue? value, IReadOnlyList<string> words) =>
        InsertionPoint.Find(platform, field, value).ValueWith(words);

    private sealed class Filler
    {
        private readonly FillInput _input;
        private readonly Field _field;
        private readonly Unit _unit;
        private readonly CancellationToken _stop;
        private readonly AvoidedTerms _avoided;
        private readonly Placement _placement;
        private readonly IReadOnlyList<WantedTerm> _wanted;
        private readonly InsertionPoint _point;
        private readonly TermSet _terms;
        private readonly Weighing _before;
        private readonly CoverModel _covers;
        private readonly int _separatorSize;
        private readonly long _capacity;
        private readonly int[] _costs;

        public Filler(FillInput input, Field field, CancellationToken stop)
        {
            (_input, _field, _unit, _stop) = (input, field, field.Limit?.Unit ?? Unit.Characters, stop);
            _avoided = input.Avoided();
            _placement = input.Placement(_avoided);
            _wanted = [.. input.Terms.Where(_placement.Allows)];
            _point = InsertionPoint.Find(input.Platform, field, input.Copy.GetValueOrDefault(input.Key));
            _terms = TermSet.Prepare(input.Platform, [.. input.Terms.Select(t => t.Text)]);
            _before = Weigher.Weigh(_terms, input.Copy, input.Terms, stop);
            _covers = new(
                input.Platform,
                _point.Scope(input.Platform, input.Copy),
                _wanted,
                [.. _before.Terms.Where(t => _placement.Allows(t.Term)).Select(t => t.Grade != Grade.Missing)],
                _avoided
            );
            _separatorSize = TextLength.Of(_point.Separator, _unit);
            _capacity = _point.RoomLeft(field, _unit) + _separatorSize;
            _costs = [.. _covers.Forms.Select(CostOf)];
            _placement.LeaveOutLong(TooLong());
        }

        // Solves the knapsack again without the covers that failed: words that open a term only side by side can't always be placed so.
        public WordsFill Fill()
        {
            var (best, bound) = ((WordsFill?)null, 0.0);
            var failed = new HashSet<TermCover>();
            for (var round = 0; round < MaxRounds; round++)
            {
                _stop.ThrowIfCancellationRequested();
                var packing = new SetUnionKnapsack(_costs, _covers.BundlesWithout(failed), _capacity, _stop)
                {
                    Budget = _input.Budget,
                }.Solve();
                bound = round == 0 ? packing.Bound : bound;
                if (_point.IsSentence)
                {
                    best = Sentence();
                    break;
                }

                var fill = FillWith(packing.Items);
                if (best is null || fill.Gain > best.Gain)
                    best = fill;
                var lost = _covers
                    .Covers.Where(c => c.MustBeAdjacent && c.Items.All(i => packing.Items[i]) && !best.Opens.Contains(_wanted[c.Term].Text))
                    .ToList();
                var before = failed.Count;
                failed.UnionWith(lost);
                if (fill.Gain >= packing.Value * (1 - SetUnionKnapsack.Tolerance) || failed.Count == before)
                    break;
            }

            return best! with
            {
                Bound = Math.Max(best.Gain, bound),
                LeftOut = _placement.LeftOut,
            };
        }

        // Missing terms whose words would not fit an empty field.
        private List<WantedTerm> TooLong()
        {
            if (_field.Limit?.Max is not { } max)
                return [];
            var cheapest = new Dictionary<int, long>();
            foreach (var cover in _covers.Covers)
                cheapest[cover.Term] = Math.Min(
                    cheapest.GetValueOrDefault(cover.Term, long.MaxValue),
                    cover.Items.Sum(i => (long)_costs[i])
                );
            return [.. cheapest.Where(c => c.Value - _separatorSize > max).Select(c => _wanted[c.Key])];
        }

        private int CostOf(string word) => TextLength.Of(word, _unit) + _separatorSize;

        // A sentence that people read says whole picks, few enough to be read: each time the one that gains the most for its length.
        private WordsFill Sentence()
        {
            var missing = _before
                .Terms.Where(t => t.Grade == Grade.Missing && _placement.Allows(t.Term) && EndsInContent(t.Term.Text))
                .Select(t => t.Term)
                .OrderByDescending(t => t.Demand())
                .Take(MostTried)
                .ToList();
            var uses = _avoided.UsesIn(_point.Text);
            var said = With([]);
            while (said.Words.Count < MostPhrases)
            {
                _stop.ThrowIfCancellationRequested();
                var best = missing
                    .Where(t => !said.Words.Contains(t.Text))
                    .Select(t => (t.Text, Words: (List<string>)[.. said.Words, t.Text]))
                    .Where(t => RoomUsed.Of(_field, _point.ValueWith(t.Words)).Fits && _avoided.UsesIn(_point.TextWith(t.Words)) <= uses)
                    .Select(t => (Fill: With(t.Words), Cost: CostOf(t.Text)))
                    .OrderByDescending(t => (t.Fill.Gain - said.Gain) / t.Cost)
                    .FirstOrDefault();
                if (best.Fill is null || best.Fill.Gain <= said.Gain)
                    break;
                said = best.Fill;
            }

            return said;
        }

        private static bool EndsInContent(string text) =>
            Tokens.Of(text) is { Count: > 0 } tokens && !StopWords.Has(tokens[0].Word) && !StopWords.Has(tokens[^1].Word);

        private WordsFill FillWith(bool[] chosen)
        {
            var spent = 0L;
            for (var i = 0; i < _costs.Length; i++)
                spent += chosen[i] ? _costs[i] : 0;
            var chains = new ChainOrder(_covers, chosen, _capacity - spent, s => CostOf(s)).BuildChains();
            var words = _point.Arrange(chains, _avoided);
            // Removes words that do not fit: characters can combine across a separator and then measure more than by themselves.
            while (words.Count > 0 && !RoomUsed.Of(_field, _point.ValueWith(words)).Fits)
                words.RemoveAt(words.Count - 1);
            return With(words);
        }

        private WordsFill With(List<string> words)
        {
            var value = words.Count == 0 ? _input.Copy.GetValueOrDefault(_input.Key) ?? _point.ValueWith([]) : _point.ValueWith(words);
            var effect = FillEffect.Of(_before, Weigher.Weigh(_terms, _input.With(value), _input.Terms, _stop), _placement);
            var text = _point.TextWith(words);
            return new(words, value, text, TextLength.Of(text, _unit), _field.Limit?.Max, effect.Gain, 0, effect.Opens, effect.Left);
        }
    }
}
