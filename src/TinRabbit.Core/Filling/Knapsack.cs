namespace TinRabbit.Core.Filling;

/// <summary>Items that are worth something together.</summary>
/// <param name="Term">What they serve; it is worth its value once, however many of its bundles are complete.</param>
/// <param name="Value">What the term is worth; more than 0.</param>
/// <param name="Items">Numbers of the items needed, each once.</param>
internal sealed record Bundle(int Term, double Value, int[] Items);

/// <summary>What was chosen, what it is worth, and what no choice can pass.</summary>
internal sealed record Packed(bool[] Items, double Value, double Bound);

/// <summary>
/// The set-union knapsack (Goldschmidt, Nehme and Yu 1994): choose items within the room so that the terms with a complete bundle are
/// worth most. An item costs once, however many bundles need it. The bound is Lagrange's, by minimum cuts; the choice begins with the
/// cuts' own and is bettered by local search. There is no chance and no clock in it: the same question has the same answer.
/// </summary>
internal sealed class Knapsack
{
    // Elementary steps of the local search, about 20 ms of work, and what is spent on subproblems to close a gap: as many as there are of
    // items and bundles in each.
    private const long Effort = 1_000_000;
    private const int Subproblems = 24_000;

    // With so few items every choice is looked at.
    private const int Few = 20;
    private const double Near = 1e-9;

    private readonly int[][] _bundlesOf;
    private readonly int[][] _bundlesOfTerm;
    private readonly CancellationToken _stop;
    private readonly int _terms;
    private long _steps;

    /// <param name="costs">What each item costs, more than 0.</param>
    /// <param name="bundles">What is worth something; those that no room could hold are left out.</param>
    /// <param name="room">What may be spent.</param>
    /// <param name="stop">Stops the search.</param>
    public Knapsack(int[] costs, IEnumerable<Bundle> bundles, long room, CancellationToken stop = default)
    {
        _stop = stop;
        (Costs, Room) = (costs, room);
        Bundles = [.. bundles.Where(b => b.Items.Sum(i => (long)costs[i]) <= room)];
        _terms = Bundles.Length == 0 ? 0 : Bundles.Max(b => b.Term) + 1;
        _bundlesOf = Inverse(costs.Length, b => b.Items);
        _bundlesOfTerm = Inverse(_terms, b => [b.Term]);
    }

    public int[] Costs { get; }

    public Bundle[] Bundles { get; }

    public long Room { get; }

    /// <summary>Chooses.</summary>
    public Packed Pack()
    {
        var all = Everything();
        if (all.Spent <= Room)
            return new(all.In, all.Worth, all.Worth);
        if (Enumerable.Range(0, Costs.Length).Where(i => _bundlesOf[i].Length > 0).ToArray() is { Length: <= Few } few)
            return BestOf(few);
        var closure = new Closure(this);
        var (bound, below, above) = Relax(closure, null);
        _steps = Effort * Math.Clamp(300 / (Costs.Length + Bundles.Length), 1, 6);
        var best = Better(Filled(below));
        if (Proven(best.Worth, bound))
            return new(best.In, best.Worth, bound);
        foreach (var start in (State[])[Filled(Reduced(above)), Filled(new(this))])
            if (Better(start) is var other && other.Worth > best.Worth)
                best = other;
        bound = Tightened(closure, best, bound);
        if (!Proven(best.Worth, bound))
            best = Shaken(best, below, above);
        return new(best.In, best.Worth, Math.Max(bound, best.Worth));
    }

    // From one choice to the next a single item comes or goes (a Gray code).
    private Packed BestOf(int[] items)
    {
        var state = new State(this);
        var (best, worth, spent) = (new bool[Costs.Length], 0.0, 0L);
        for (var turn = 1; turn < 1 << items.Length; turn++)
        {
            var item = items[System.Numerics.BitOperations.TrailingZeroCount(turn)];
            if (state.In[item])
                state.Remove(item);
            else
                state.Add(item);
            if (state.Spent > Room || state.Worth < worth * (1 - Near) || (state.Worth <= worth * (1 + Near) && state.Spent >= spent))
                continue;
            (worth, spent) = (state.Worth, state.Spent);
            state.In.CopyTo(best, 0);
        }

        return new(best, worth, worth);
    }

    private static bool Proven(double worth, double bound) => worth >= bound * (1 - Near);

    // Lagrange: whatever the price of a unit of room, room·price + the best closure at that price is an upper bound. The lowest is
    // where a closure that fits meets one that does not; each cut brings the two closer.
    private (double Bound, State Below, State Above) Relax(Closure closure, sbyte[]? fixedItems)
    {
        var (free, spent) = (Room, 0L);
        var taken = new bool[Costs.Length];
        for (var i = 0; fixedItems is not null && i < Costs.Length; i++)
            if (fixedItems[i] == 1)
                (taken[i], spent) = (true, spent + Costs[i]);
        free -= spent;
        var below = StateOf(taken);
        var above = StateOf(closure.Best(0, fixedItems).Items);
        var bound = SumOf(above.In);
        if (above.Spent <= Room)
            return (bound, above, above);
        for (var round = 0; round < 40; round++)
        {
            _stop.ThrowIfCancellationRequested();
            var (low, high) = (SumOf(below.In), SumOf(above.In));
            var at = (high - low) / (above.Spent - below.Spent);
            if (at <= 0)
                break;
            var (items, most) = closure.Best(at, fixedItems);
            var here = free * at + most;
            bound = Math.Min(bound, here);
            var state = StateOf(items);
            var meets = low + at * (Room - below.Spent);
            if (here <= meets * (1 + Near) || state.Spent == below.Spent || state.Spent == above.Spent)
                break;
            if (state.Spent <= Room)
                below = state;
            else
                above = state;
        }

        return (bound, below, above);
    }

    // Bundles are counted one by one here, as the cut counts them.
    private double SumOf(bool[] items) => Bundles.Where(b => Array.TrueForAll(b.Items, i => items[i])).Sum(b => b.Value);

    // Best first: the subproblem with the highest bound is split on an item, until the highest is no more than what was found.
    private double Tightened(Closure closure, State best, double bound)
    {
        if (Proven(best.Worth, bound) || Costs.Length > 40)
            return bound;
        var open = new PriorityQueue<(sbyte[] Fixed, double Bound), double>();
        open.Enqueue((new sbyte[Costs.Length], bound), -bound);
        for (var left = Subproblems; left > 0 && open.Count > 0; left -= 2 * (Costs.Length + Bundles.Length))
        {
            var (fixedItems, atMost) = open.Peek();
            if (Proven(best.Worth, atMost))
                return best.Worth;
            var split = SplitOn(fixedItems);
            if (split < 0)
                return atMost;
            open.Dequeue();
            foreach (var side in (sbyte[])[1, -1])
            {
                var child = (sbyte[])fixedItems.Clone();
                child[split] = side;
                var spent = 0L;
                for (var i = 0; i < child.Length; i++)
                    if (child[i] == 1)
                        spent += Costs[i];
                if (spent > Room)
                    continue;
                var (most, below, _) = Relax(closure, child);
                if (below.Worth > best.Worth)
                    best.Take(Filled(below));
                if (most > best.Worth * (1 + Near))
                    open.Enqueue((child, Math.Min(most, atMost)), -Math.Min(most, atMost));
            }
        }

        return open.Count == 0 ? best.Worth : open.Peek().Bound;
    }

    // The undecided item on which most value hangs.
    private int SplitOn(sbyte[] fixedItems)
    {
        var (split, most) = (-1, 0.0);
        for (var i = 0; i < Costs.Length; i++)
        {
            if (fixedItems[i] != 0)
                continue;
            var hangs = 0.0;
            foreach (var b in _bundlesOf[i])
                if (!Array.Exists(Bundles[b].Items, k => fixedItems[k] < 0))
                    hangs += Bundles[b].Value;
            if (hangs > most)
                (split, most) = (i, hangs);
        }

        return split;
    }

    // Fills what room is left, the bundle with the most value for what it still costs first.
    private State Filled(State state, int without = -1)
    {
        while (true)
        {
            _stop.ThrowIfCancellationRequested();
            var (pick, density) = (-1, 0.0);
            for (var b = 0; b < Bundles.Length; b++)
            {
                if (state.Lacks[b] == 0 || state.Met[Bundles[b].Term] > 0)
                    continue;
                var cost = 0;
                foreach (var i in Bundles[b].Items)
                    if (!state.In[i])
                        cost = i == without ? int.MaxValue / 2 : cost + Costs[i];
                if (cost > Room - state.Spent)
                    continue;
                var gain = Gain(state, b);
                if (gain > density * cost)
                    (pick, density) = (b, gain / cost);
            }

            _steps -= Bundles.Length * 4;
            if (pick < 0)
                return state;
            foreach (var i in Bundles[pick].Items)
                state.Add(i);
        }
    }

    // What completing a bundle brings, its neighbours that are completed by the way included.
    private double Gain(State state, int bundle)
    {
        var items = Bundles[bundle].Items;
        var gain = 0.0;
        foreach (var i in items)
        {
            if (state.In[i])
                continue;
            foreach (var b in _bundlesOf[i])
            {
                if (state.Met[Bundles[b].Term] > 0 || state.Seen[b] == state.Mark)
                    continue;
                var lacks = state.Lacks[b];
                if (lacks > items.Length)
                    continue;
                foreach (var k in Bundles[b].Items)
                    if (!state.In[k] && Array.IndexOf(items, k) >= 0)
                        lacks--;
                _steps -= Bundles[b].Items.Length;
                if (lacks != 0)
                    continue;
                state.Seen[b] = state.Mark;
                gain += Bundles[b].Value;
            }
        }

        state.Mark++;
        return gain;
    }

    // Takes out the items on which least value hangs for what they cost, until it fits, and then what no bundle needs any more.
    private State Reduced(State state, bool[]? keep = null)
    {
        for (var first = true; state.Spent > Room; first = false)
        {
            var (worst, least) = (-1, double.PositiveInfinity);
            for (var i = 0; i < Costs.Length; i++)
                if (state.In[i] && keep?[i] != true && Hangs(state, i) / Costs[i] is var density && density < least)
                    (worst, least) = (i, density);
            if (worst < 0)
                return state;
            state.Remove(worst);
            if (first)
                Prune(state, keep);
            else
                foreach (var b in _bundlesOf[worst])
                    foreach (var i in Bundles[b].Items)
                        PruneOne(state, i, keep);
        }

        return state;
    }

    private double Hangs(State state, int item)
    {
        var value = 0.0;
        foreach (var b in _bundlesOf[item])
            if (state.Lacks[b] == 0 && state.Met[Bundles[b].Term] == 1)
                value += Bundles[b].Value;
        _steps -= _bundlesOf[item].Length + 1;
        return value;
    }

    private void Prune(State state, bool[]? keep)
    {
        for (var i = 0; i < Costs.Length; i++)
            PruneOne(state, i, keep);
    }

    private void PruneOne(State state, int item, bool[]? keep)
    {
        if (!state.In[item] || keep?[item] == true)
            return;
        foreach (var b in _bundlesOf[item])
            if (state.Lacks[b] == 0)
                return;
        state.Remove(item);
    }

    // Takes one item out and fills anew without it, or forces one bundle in and takes out what is worth least, as long as that helps.
    private State Better(State best)
    {
        for (var better = true; better && _steps > 0;)
        {
            better = false;
            for (var i = 0; i < Costs.Length && _steps > 0; i++)
            {
                if (!best.In[i])
                    continue;
                var other = best.Copy();
                other.Remove(i);
                Prune(other, null);
                better |= Keep(Filled(other, i));
            }

            for (var b = 0; b < Bundles.Length && _steps > 0; b++)
                if (best.Lacks[b] > 0 && best.Met[Bundles[b].Term] == 0)
                    better |= Keep(Forced(best, b));
        }

        return best;

        bool Keep(State other)
        {
            if (other.Worth <= best.Worth * (1 + Near) && (other.Worth < best.Worth || other.Spent >= best.Spent))
                return false;
            var gained = other.Worth > best.Worth * (1 + Near);
            best = other;
            return gained;
        }
    }

    private State Forced(State from, int bundle)
    {
        var state = from.Copy();
        var keep = new bool[Costs.Length];
        foreach (var i in Bundles[bundle].Items)
        {
            keep[i] = true;
            state.Add(i);
        }

        return Filled(Reduced(state, keep));
    }

    // Leaves the best by several forced bundles at a time, each in turn from another place, and betters what comes of it. What lies
    // between the two closures is in doubt, and which of a term's bundles to take; so that is where to look.
    private State Shaken(State best, State below, State above)
    {
        var doubtful = Enumerable.Range(0, Bundles.Length).Where(b => _bundlesOfTerm[Bundles[b].Term].Length > 1 || Bundles[b].Items.Any(i => above.In[i] && !below.In[i])).ToArray();
        if (doubtful.Length == 0)
            return best;
        var dice = new Dice();
        for (var turn = 0; _steps > 0 && turn < 4000; turn++)
        {
            var state = best.Copy();
            for (var k = 0; k < 2 + turn % 3; k++)
            {
                var b = doubtful[dice.Throw(doubtful.Length)];
                state = state.Lacks[b] > 0 ? Forced(state, b) : Without(state, b);
            }

            state = Better(state);
            if (state.Worth > best.Worth * (1 + Near))
                best = state;
        }

        return best;
    }

    private State Without(State state, int bundle)
    {
        var item = Bundles[bundle].Items.MinBy(i => Hangs(state, i) / Costs[i]);
        state.Remove(item);
        Prune(state, null);
        return Filled(state, item);
    }

    private State Everything()
    {
        var state = new State(this);
        foreach (var bundle in Bundles)
            foreach (var i in bundle.Items)
                state.Add(i);
        return state;
    }

    private State StateOf(bool[] items)
    {
        var state = new State(this);
        for (var i = 0; i < items.Length; i++)
            if (items[i])
                state.Add(i);
        return state;
    }

    private int[][] Inverse(int count, Func<Bundle, int[]> of)
    {
        var lists = new List<int>[count];
        for (var i = 0; i < count; i++)
            lists[i] = [];
        for (var b = 0; b < Bundles.Length; b++)
            foreach (var i in of(Bundles[b]))
                lists[i].Add(b);
        return [.. lists.Select(l => l.ToArray())];
    }

    /// <summary>A choice, with what each bundle still lacks and how many bundles of each term are complete.</summary>
    private sealed class State
    {
        private readonly Knapsack _sack;

        public State(Knapsack sack)
        {
            _sack = sack;
            In = new bool[sack.Costs.Length];
            Lacks = [.. sack.Bundles.Select(b => b.Items.Length)];
            Met = new int[sack._terms];
            Seen = new int[Lacks.Length];
        }

        private State(State other)
        {
            _sack = other._sack;
            (In, Lacks, Met, Seen) = ((bool[])other.In.Clone(), (int[])other.Lacks.Clone(), (int[])other.Met.Clone(), new int[other.Seen.Length]);
            (Spent, Worth) = (other.Spent, other.Worth);
        }

        public bool[] In { get; private set; }

        public int[] Lacks { get; private set; }

        public int[] Met { get; private set; }

        public int[] Seen { get; }

        public int Mark { get; set; } = 1;

        public long Spent { get; private set; }

        public double Worth { get; private set; }

        public State Copy()
        {
            _sack._steps -= Lacks.Length / 2;
            return new(this);
        }

        public void Take(State other) => (In, Lacks, Met, Spent, Worth) = (other.In, other.Lacks, other.Met, other.Spent, other.Worth);

        public void Add(int item)
        {
            if (In[item])
                return;
            In[item] = true;
            Spent += _sack.Costs[item];
            foreach (var b in _sack._bundlesOf[item])
                if (--Lacks[b] == 0 && Met[_sack.Bundles[b].Term]++ == 0)
                    Worth += _sack.Bundles[b].Value;
            _sack._steps -= _sack._bundlesOf[item].Length;
        }

        public void Remove(int item)
        {
            In[item] = false;
            Spent -= _sack.Costs[item];
            foreach (var b in _sack._bundlesOf[item])
                if (Lacks[b]++ == 0 && --Met[_sack.Bundles[b].Term] == 0)
                    Worth -= _sack.Bundles[b].Value;
            _sack._steps -= _sack._bundlesOf[item].Length;
        }
    }
}
