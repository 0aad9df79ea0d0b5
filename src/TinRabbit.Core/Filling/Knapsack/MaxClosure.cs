namespace TinRabbit.Core.Filling.Knapsack;

/// <summary>
/// Chooses bundles and the items they need so that value less price is greatest, any number of them: a maximum closure, found as a
/// minimum cut (Picard 1976) by Dinic's algorithm. The price of an item changes from question to question, the bundles do not.
/// </summary>
internal sealed class MaxClosure
{
    private const double Tolerance = 1e-9;
    private readonly SetUnionKnapsack _problem;
    private readonly int _items;
    private readonly int _source;
    private readonly int _sink;
    private readonly int[] _first;
    private readonly int[] _next;
    private readonly int[] _to;
    private readonly double[] _capacity;
    private readonly int[] _level;
    private readonly int[] _nextEdge;
    private readonly int[] _queue;
    private int _edges;

    public MaxClosure(SetUnionKnapsack problem)
    {
        _problem = problem;
        _items = problem.Costs.Length;
        var bundles = problem.Bundles.Length;
        _source = _items + bundles;
        _sink = _source + 1;
        var edges = 2 * (_items + bundles + problem.Bundles.Sum(b => b.Items.Length));
        (_next, _to, _capacity) = (new int[edges], new int[edges], new double[edges]);
        (_first, _level, _nextEdge, _queue) = (new int[_sink + 1], new int[_sink + 1], new int[_sink + 1], new int[_sink + 1]);
        Array.Fill(_first, -1);
        // Adds the edges to the sink first, then those from the source, so that their capacities can be set by number.
        for (var i = 0; i < _items; i++)
            AddEdge(i, _sink);
        for (var b = 0; b < bundles; b++)
            AddEdge(_source, _items + b);
        for (var b = 0; b < bundles; b++)
            foreach (var item in problem.Bundles[b].Items)
                AddEdge(_items + b, item);
    }

    /// <summary>
    /// The items worth their price at this price a unit of cost, those put out left out and those put in free, and an upper bound on what
    /// bundles are worth less the price of their items: right however exact the cut is.
    /// </summary>
    /// <param name="price">Price of a unit of cost.</param>
    /// <param name="fixedItems">By item: 0 free to choose, 1 already in, −1 put out; null when all are free to choose.</param>
    public (bool[] Items, double AtMost) Solve(double price, sbyte[]? fixedItems = null)
    {
        var worth = 0.0;
        for (var i = 0; i < _items; i++)
            (_capacity[2 * i], _capacity[2 * i + 1]) = (fixedItems?[i] == 1 ? 0 : price * _problem.Costs[i], 0);
        for (var b = 0; b < _problem.Bundles.Length; b++)
        {
            var (value, needed, edge) = (_problem.Bundles[b].Value, _problem.Bundles[b].Items, 2 * (_items + b));
            if (fixedItems is not null && Array.Exists(needed, i => fixedItems[i] < 0))
                value = 0;
            worth += value;
            (_capacity[edge], _capacity[edge + 1]) = (value, 0);
        }

        for (var edge = 2 * (_items + _problem.Bundles.Length); edge < _edges; edge += 2)
            (_capacity[edge], _capacity[edge + 1]) = (double.PositiveInfinity, 0);
        var flow = 0.0;
        while (BuildLevels())
        {
            Array.Copy(_first, _nextEdge, _first.Length);
            while (Augment(_source, double.PositiveInfinity) is > 0 and var pushed)
                flow += pushed;
        }

        var chosen = new bool[_items];
        for (var i = 0; i < _items; i++)
            chosen[i] = _level[i] >= 0 || fixedItems?[i] == 1;
        return (chosen, worth - flow + Tolerance * worth);
    }

    private void AddEdge(int from, int to)
    {
        (_to[_edges], _next[_edges]) = (to, _first[from]);
        _first[from] = _edges++;
        (_to[_edges], _next[_edges]) = (from, _first[to]);
        _first[to] = _edges++;
    }

    private bool BuildLevels()
    {
        Array.Fill(_level, -1);
        _level[_source] = 0;
        _queue[0] = _source;
        for (int head = 0, tail = 1; head < tail; head++)
        for (var edge = _first[_queue[head]]; edge >= 0; edge = _next[edge])
            if (_capacity[edge] > Tolerance && _level[_to[edge]] < 0)
            {
                _level[_to[edge]] = _level[_queue[head]] + 1;
                _queue[tail++] = _to[edge];
            }

        return _level[_sink] >= 0;
    }

    private double Augment(int node, double most)
    {
        if (node == _sink)
            return most;
        for (; _nextEdge[node] >= 0; _nextEdge[node] = _next[_nextEdge[node]])
        {
            var edge = _nextEdge[node];
            if (_capacity[edge] <= Tolerance || _level[_to[edge]] != _level[node] + 1)
                continue;
            var pushed = Augment(_to[edge], Math.Min(most, _capacity[edge]));
            if (pushed <= 0)
                continue;
            _capacity[edge] -= pushed;
            _capacity[edge ^ 1] += pushed;
            return pushed;
        }

        return 0;
    }
}
