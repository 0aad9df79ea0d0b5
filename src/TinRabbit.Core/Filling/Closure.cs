namespace TinRabbit.Core.Filling;

/// <summary>
/// Chooses bundles and the items they need so that value less price is greatest, any number of them: a maximum closure, found as a
/// minimum cut (Picard 1976) by Dinic's algorithm. The price of an item changes from question to question, the bundles do not.
/// </summary>
internal sealed class Closure
{
    private const double Tiny = 1e-9;
    private readonly Knapsack _sack;
    private readonly int _items;
    private readonly int _source;
    private readonly int _sink;
    private readonly int[] _first;
    private readonly int[] _next;
    private readonly int[] _to;
    private readonly double[] _room;
    private readonly int[] _level;
    private readonly int[] _at;
    private readonly int[] _queue;
    private int _edges;

    public Closure(Knapsack sack)
    {
        _sack = sack;
        _items = sack.Costs.Length;
        var bundles = sack.Bundles.Length;
        _source = _items + bundles;
        _sink = _source + 1;
        var edges = 2 * (_items + bundles + sack.Bundles.Sum(b => b.Items.Length));
        (_next, _to, _room) = (new int[edges], new int[edges], new double[edges]);
        (_first, _level, _at, _queue) = (new int[_sink + 1], new int[_sink + 1], new int[_sink + 1], new int[_sink + 1]);
        Array.Fill(_first, -1);
        // The edges to the sink come first, then those from the source, so that their rooms are set by number.
        for (var i = 0; i < _items; i++)
            Edge(i, _sink);
        for (var b = 0; b < bundles; b++)
            Edge(_source, _items + b);
        for (var b = 0; b < bundles; b++)
            foreach (var item in sack.Bundles[b].Items)
                Edge(_items + b, item);
    }

    /// <summary>
    /// The items worth their price at this price a unit of cost, those put out left out and those put in free, and an upper bound on what
    /// bundles are worth less the price of their items: right however exact the cut is.
    /// </summary>
    /// <param name="price">Price of a unit of cost.</param>
    /// <param name="fixedItems">By item: 0 free to choose, 1 already in, −1 put out; null when all are free to choose.</param>
    public (bool[] Items, double AtMost) Best(double price, sbyte[]? fixedItems = null)
    {
        var worth = 0.0;
        for (var i = 0; i < _items; i++)
            (_room[2 * i], _room[2 * i + 1]) = (fixedItems?[i] == 1 ? 0 : price * _sack.Costs[i], 0);
        for (var b = 0; b < _sack.Bundles.Length; b++)
        {
            var (value, needed, edge) = (_sack.Bundles[b].Value, _sack.Bundles[b].Items, 2 * (_items + b));
            if (fixedItems is not null && Array.Exists(needed, i => fixedItems[i] < 0))
                value = 0;
            worth += value;
            (_room[edge], _room[edge + 1]) = (value, 0);
        }

        for (var edge = 2 * (_items + _sack.Bundles.Length); edge < _edges; edge += 2)
            (_room[edge], _room[edge + 1]) = (double.PositiveInfinity, 0);
        var flow = 0.0;
        while (Levels())
        {
            Array.Copy(_first, _at, _first.Length);
            while (Push(_source, double.PositiveInfinity) is > 0 and var pushed)
                flow += pushed;
        }

        var chosen = new bool[_items];
        for (var i = 0; i < _items; i++)
            chosen[i] = _level[i] >= 0 || fixedItems?[i] == 1;
        return (chosen, worth - flow + Tiny * worth);
    }

    private void Edge(int from, int to)
    {
        (_to[_edges], _next[_edges]) = (to, _first[from]);
        _first[from] = _edges++;
        (_to[_edges], _next[_edges]) = (from, _first[to]);
        _first[to] = _edges++;
    }

    private bool Levels()
    {
        Array.Fill(_level, -1);
        _level[_source] = 0;
        _queue[0] = _source;
        for (int head = 0, tail = 1; head < tail; head++)
            for (var edge = _first[_queue[head]]; edge >= 0; edge = _next[edge])
                if (_room[edge] > Tiny && _level[_to[edge]] < 0)
                {
                    _level[_to[edge]] = _level[_queue[head]] + 1;
                    _queue[tail++] = _to[edge];
                }

        return _level[_sink] >= 0;
    }

    private double Push(int node, double most)
    {
        if (node == _sink)
            return most;
        for (; _at[node] >= 0; _at[node] = _next[_at[node]])
        {
            var edge = _at[node];
            if (_room[edge] <= Tiny || _level[_to[edge]] != _level[node] + 1)
                continue;
            var pushed = Push(_to[edge], Math.Min(most, _room[edge]));
            if (pushed <= 0)
                continue;
            _room[edge] -= pushed;
            _room[edge ^ 1] += pushed;
            return pushed;
        }

        return 0;
    }
}
