using TinRabbit.Core.Measures;
using TinRabbit.Core.Words;

namespace TinRabbit.Core.Filling.Words;

/// <summary>Puts chosen words in an order in which the worthiest phrases stand whole.</summary>
internal sealed class ChainOrder
{
    private readonly CoverModel _covers;
    private readonly bool[] _chosen;
    private readonly string[] _forms;
    private readonly bool[] _settled;
    private readonly int[] _after;
    private readonly int[] _before;
    private readonly Func<string, long> _cost;
    private readonly List<int> _order = [];
    private long _roomLeft;

    /// <param name="ways">The words and the terms.</param>
    /// <param name="chosen">Which words were chosen.</param>
    /// <param name="left">Room that is left: for the form in which the worthiest term is typed.</param>
    /// <param name="cost">What a form costs, its separator included.</param>
    public ChainOrder(CoverModel ways, bool[] chosen, long left, Func<string, long> cost)
    {
        (_covers, _chosen, _roomLeft, _cost) = (ways, chosen, left, cost);
        _forms = [.. ways.Forms];
        _settled = new bool[_forms.Length];
        (_after, _before) = (new int[_forms.Length], new int[_forms.Length]);
        Array.Fill(_after, -1);
        Array.Fill(_before, -1);
    }

    /// <summary>Runs of words, the worthiest first.</summary>
    public List<string[]> BuildChains()
    {
        var byWorth = Enumerable.Range(0, _covers.Terms.Count).OrderByDescending(t => _covers.Terms[t].Worth()).ToList();
        var ways = _covers.Covers.Where(w => w.Items.All(i => _chosen[i])).ToLookup(w => w.Term);
        // Links first the phrases of terms that open only if their words are adjacent.
        foreach (var t in byWorth)
            if (ways[t].Any() && ways[t].All(w => w.MustBeAdjacent))
                Link(ways[t].First().Phrase!);
        foreach (var t in byWorth)
        {
            // Keeps adjacent words of a term adjacent, also where its other words are in another field.
            var words = _covers.Tokens[t];
            for (var from = 0; from < words.Count; from++)
            {
                var run = RunFrom(words, from);
                if (run.Count > (from == 0 && run.Count == words.Count ? 0 : 1) && Link([.. run]))
                    for (var i = 0; i < run.Count; i++)
                        SettleForm(run[i], words[from + i].Word);
                from += run.Count;
            }
        }

        for (var i = 0; i < _chosen.Length; i++)
            if (_chosen[i] && !_order.Contains(i))
                _order.Add(i);
        var chains = new List<string[]>();
        var done = new bool[_chosen.Length];
        foreach (var item in _order)
        {
            if (done[item])
                continue;
            var head = item;
            while (_before[head] >= 0)
                head = _before[head];
            var chain = new List<string>();
            for (var at = head; at >= 0; at = _after[at])
            {
                chain.Add(_forms[at]);
                done[at] = true;
            }

            chains.Add([.. chain]);
        }

        return chains;
    }

    // The run of chosen words that begins here in a term, without repetition.
    private List<int> RunFrom(IReadOnlyList<Token> words, int from)
    {
        var run = new List<int>();
        for (
            var i = from;
            i < words.Count && _covers.IndexOfWord(words[i].Word) is >= 0 and var number && _chosen[number] && !run.Contains(number);
            i++
        )
            run.Add(number);
        return run;
    }

    private bool Link(int[] phrase)
    {
        for (var i = 1; i < phrase.Length; i++)
        {
            var (one, next) = (phrase[i - 1], phrase[i]);
            var linked = _after[one] == next;
            if (!linked && (_after[one] >= 0 || _before[next] >= 0 || EndOf(next) == one))
                return false;
        }

        // Links one pair after another, because the links of one phrase can close a ring among themselves.
        for (var i = 1; i < phrase.Length; i++)
        {
            if (_after[phrase[i - 1]] == phrase[i])
                continue;
            if (EndOf(phrase[i]) == phrase[i - 1])
                return false;
            (_after[phrase[i - 1]], _before[phrase[i]]) = (phrase[i], phrase[i - 1]);
        }

        foreach (var i in phrase)
            if (!_order.Contains(i))
                _order.Add(i);
        return true;
    }

    private int EndOf(int item)
    {
        while (_after[item] >= 0)
            item = _after[item];
        return item;
    }

    private void SettleForm(int item, string form)
    {
        var more = _cost(form) - _cost(_forms[item]);
        if (_settled[item] || more > _roomLeft)
            return;
        (_forms[item], _settled[item], _roomLeft) = (form, true, _roomLeft - more);
    }
}
