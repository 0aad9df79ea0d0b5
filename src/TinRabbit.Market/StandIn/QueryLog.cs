using TinRabbit.Core;

namespace TinRabbit.Market.StandIn;

/// <summary>Everything that shoppers type in one market, made from the vocabulary and a seed.</summary>
internal sealed class QueryLog
{
    private const double LeastVolume = 16;

    private readonly DeterministicRandom _random;
    private readonly (int Query, int At)[] _wordStarts;
    private readonly Dictionary<string, int> _byText;

    public QueryLog(Vocabulary vocabulary, string country, Func<Head, double> size, DeterministicRandom random)
    {
        _random = random;
        Queries = [.. Make(vocabulary, country, size, random)];
        _byText = Queries.Select((q, i) => (q.Text, i)).ToDictionary(q => q.Text, q => q.i, StringComparer.Ordinal);
        _wordStarts = [.. Queries.SelectMany((q, i) => WordStarts(q.Text).Select(at => (i, at)))];
        Array.Sort(_wordStarts, (a, b) => Tail(a).SequenceCompareTo(Tail(b)));
    }

    public IReadOnlyList<Query> Queries { get; }

    public Query? Find(string text) => _byText.TryGetValue(text, out var i) ? Queries[i] : null;

    /// <summary>Queries with a word that begins like this, those that begin so themselves first among equals.</summary>
    public IReadOnlyList<string> StartingWith(string typed, int most)
    {
        var (low, high) = (0, _wordStarts.Length);
        while (low < high)
        {
            var middle = (low + high) / 2;
            if (Tail(_wordStarts[middle]).SequenceCompareTo(typed) < 0)
                low = middle + 1;
            else
                high = middle;
        }

        var found = new Dictionary<int, double>();
        for (var i = low; i < _wordStarts.Length && Tail(_wordStarts[i]).StartsWith(typed, StringComparison.Ordinal); i++)
        {
            var (query, at) = _wordStarts[i];
            var popular = Queries[query].Volume * (at == 0 ? 3 : 1) * Math.Exp(0.3 * _random.For("order").For(query).Normal);
            found[query] = Math.Max(popular, found.GetValueOrDefault(query));
        }

        return [.. found.OrderByDescending(f => f.Value).Take(most).Select(f => Queries[f.Key].Text)];
    }

    private ReadOnlySpan<char> Tail((int Query, int At) start) => Queries[start.Query].Text.AsSpan(start.At);

    private static IEnumerable<int> WordStarts(string text)
    {
        yield return 0;
        for (var i = 1; i < text.Length; i++)
            if (text[i - 1] == ' ')
                yield return i;
    }

    private static IEnumerable<Query> Make(Vocabulary vocabulary, string country, Func<Head, double> size, DeterministicRandom random)
    {
        var made = new Dictionary<string, Query>(StringComparer.Ordinal);
        foreach (var head in vocabulary.Heads)
        {
            var volume = head.Volume * size(head) * head.Countries[Array.IndexOf(Vocabulary.Countries, country)];
            Add(head.Text, volume, head.Year, "flat");
            var words = vocabulary.Modifiers.Where(m => m.Countries.Contains(country) && m.Groups.Intersect(head.Groups).Any()).ToList();
            foreach (var one in words)
            {
                Add(Joined(head.Text, one), volume * one.Share, YearOf(head, one), one.Trend);
                foreach (var two in words)
                    if (
                        two != one
                        && one.Before
                        && volume * one.Share * two.Share > 0.3
                        && (two.Kind != one.Kind || !two.Before)
                        && !two.Text.Contains(one.Text)
                    )
                        Add(
                            Joined(Joined(head.Text, two), one),
                            volume * one.Share * two.Share * 2.2,
                            YearOf(head, one),
                            Stronger(one.Trend, two.Trend)
                        );
            }
        }

        return made.Values.OrderByDescending(q => q.Volume);

        void Add(string text, double volume, string year, string trend)
        {
            volume *= Math.Exp(0.55 * random.For(text).Normal - 0.15);
            if (volume < LeastVolume || SaysTwice(text))
                return;
            if (!made.TryGetValue(text, out var known) || known.Volume < volume)
                made[text] = new(text, volume, year, trend);
        }

        static bool SaysTwice(string text)
        {
            var words = text.Split(' ');
            return words.Distinct().Count() < words.Length && words.Where(w => w.Length > 3).GroupBy(w => w).Any(g => g.Count() > 1);
        }

        static string Joined(string head, Modifier word) => word.Before ? $"{word.Text} {head}" : $"{head} {word.Text}";
        static string YearOf(Head head, Modifier word) =>
            word.Kind == "occasion"
                ? word.Trend == "flat"
                    ? head.Year
                    : word.Trend
                : head.Year;
        static string Stronger(string one, string two) => one == "flat" ? two : one;
    }
}
