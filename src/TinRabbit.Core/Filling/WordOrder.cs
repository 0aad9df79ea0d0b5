using TinRabbit.Core.Measures;

namespace TinRabbit.Core.Filling;

/// <summary>Puts chosen words in an order in which the worthiest phrases stand whole.</summary>
internal sealed class WordOrder
{
    private readonly Ways _ways;
    private readonly bool[] _chosen;
    private readonly string[] _forms;
    private readonly bool[] _settled;
    private readonly int[] _after;
    private readonly int[] _before;
    private readonly Func<string, long> _cost;
    private readonly List<int> _inOrder = [];
    private long _left;

    /// <param name="ways">The words and the terms.</param>
    /// <param name="chosen">Which words were chosen.</param>
    /// <param name="left">Room that is left: for terms of unknown volume, and for the form in which the worthiest term is typed.</param>
    /// <param name="cost">What a form costs, its separator included.</param>
    public WordOrder(Ways ways, bool[] chosen, long left, Func<string, long> cost)
    {
        (_ways, _chosen, _left, _cost) = (ways, (bool[])chosen.Clone(), left, cost);
        _forms = [.. ways.Surfaces];
        _settled = new bool[_forms.Length];
        (_after, _before) = (new int[_forms.Length], new int[_forms.Length]);
        Array.Fill(_after, -1);
        Array.Fill(_before, -1);
    }

    /// <summary>Runs of words, the worthiest first.</summary>
    public List<string[]> Chains()
    {
        AddUnknown();
        var byWorth = Enumerable.Range(0, _ways.Terms.Count).OrderByDescending(t => _ways.Terms[t].Worth()).ToList();
        var ways = _ways.All.Where(w => w.Items.All(i => _chosen[i])).ToLookup(w => w.Term);
        // First what opens only if it stands side by side and is not open in another way.
        foreach (var t in byWorth)
            if (ways[t].Any() && ways[t].All(w => w.Adjoin))
                Link(ways[t].First().Phrase!);
        foreach (var t in byWorth)
        {
            // Where some words of a term stand elsewhere, what is left of it side by side stays so.
            var words = _ways.Tokens[t];
            for (var from = 0; from < words.Count; from++)
            {
                var run = Run(words, from);
                if (run.Count > (from == 0 && run.Count == words.Count ? 0 : 1) && Link([.. run]))
                    for (var i = 0; i < run.Count; i++)
                        Settle(run[i], words[from + i].Word);
                from += run.Count;
            }
        }

        for (var i = 0; i < _chosen.Length; i++)
            if (_chosen[i] && !_inOrder.Contains(i))
                _inOrder.Add(i);
        var chains = new List<string[]>();
        var done = new bool[_chosen.Length];
        foreach (var item in _inOrder)
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

    // The chosen words that stand side by side in a term from here on, none of them twice.
    private List<int> Run(IReadOnlyList<Words.Token> words, int from)
    {
        var run = new List<int>();
        for (var i = from; i < words.Count && _ways.NumberOf(words[i].Word) is >= 0 and var number && _chosen[number] && !run.Contains(number); i++)
            run.Add(number);
        return run;
    }

    // Nothing is known of their volume: they take only what room is left, the cheapest first.
    private void AddUnknown()
    {
        while (true)
        {
            var cheapest = _ways.All
                .Where(w => _ways.Terms[w.Term].Volume is null && !w.Items.All(i => _chosen[i]))
                .Select(w => (w.Items, Cost: w.Items.Where(i => !_chosen[i]).Sum(i => _cost(_forms[i]))))
                .Where(w => w.Cost <= _left)
                .OrderBy(w => w.Cost)
                .FirstOrDefault();
            if (cheapest.Items is null)
                return;
            _left -= cheapest.Cost;
            foreach (var i in cheapest.Items)
                _chosen[i] = true;
        }
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

        // The links of one phrase could still close a ring between them: they are laid one by one and taken up again.
        for (var i = 1; i < phrase.Length; i++)
        {
            if (_after[phrase[i - 1]] == phrase[i])
                continue;
            if (EndOf(phrase[i]) == phrase[i - 1])
                return false;
            (_after[phrase[i - 1]], _before[phrase[i]]) = (phrase[i], phrase[i - 1]);
        }

        foreach (var i in phrase)
            if (!_inOrder.Contains(i))
                _inOrder.Add(i);
        return true;
    }

    private int EndOf(int item)
    {
        while (_after[item] >= 0)
            item = _after[item];
        return item;
    }

    private void Settle(int item, string form)
    {
        var more = _cost(form) - _cost(_forms[item]);
        if (_settled[item] || more > _left)
            return;
        (_forms[item], _settled[item], _left) = (form, true, _left - more);
    }
}
