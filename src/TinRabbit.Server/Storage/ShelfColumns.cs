using System.Runtime.CompilerServices;
using System.Text;
using TinRabbit.Core.Measures;
using TinRabbit.Core.Words;

namespace TinRabbit.Server.Storage;

/// <summary>
/// A market's shelf in columns, so that a million terms are searched in milliseconds: the words of all terms lie in one text with
/// a digest of the pairs of letters of each, the numbers in arrays, and an order once made is kept and mended. Not safe for two threads at once.
/// </summary>
public sealed class ShelfColumns
{
    private const byte End = (byte)'\n';
    private const byte Bare = 1;
    private const int Orders = 7;
    private const int LongestOnStack = 200;

    // Up to this many results are sorted for each search; more are read from an order of all rows that is kept.
    private const int Few = 5000;

    private const int MostHaving = 8;

    // The fewest rows for which a thread of its own pays.
    private const int RowsOfPart = 50_000;

    private byte[] _text = new byte[1 << 12];
    private int[] _starts = new int[65];
    private int[] _ids = new int[64];
    private readonly double[][] _numbers = [.. Enumerable.Range(0, 6).Select(_ => new double[64])];
    private ulong[] _lowPairs = new ulong[64];
    private ulong[] _highPairs = new ulong[64];
    private ushort[] _sources = new ushort[64];
    private readonly List<string> _sourceNames = [];
    private readonly Dictionary<string, ushort> _sourceNumbers = new(StringComparer.Ordinal);
    private int[] _table = new int[256];
    private byte[] _passes = [];
    private readonly List<(string Words, byte[] Rows)> _having = [];
    private readonly (int[] Rows, int Known, int Seen)[] _orders = new (int[], int, int)[Orders];
    private readonly List<int> _changes = [];

    /// <summary>How many terms there are.</summary>
    public int Count { get; private set; }

    /// <summary>What is typical of it.</summary>
    public MarketStatistics Norm { get; private set; } = MarketStatistics.Unknown;

    /// <summary>How many rows changed since the norm was taken.</summary>
    public int ChangesSinceNorm { get; private set; }

    /// <summary>How much memory it takes, in bytes.</summary>
    public long Bytes =>
        _text.Length
        + 4L * (_starts.Length + _ids.Length + _table.Length)
        + _numbers.Sum(n => 8L * n.Length)
        + 18L * _sources.Length
        + _passes.Length
        + _having.Sum(h => (long)h.Rows.Length)
        + _orders.Sum(o => 4L * (o.Rows?.Length ?? 0));

    private double[] Volumes => _numbers[0];
    private double[] Competitions => _numbers[1];
    private double[] Headrooms => _numbers[5];

    /// <summary>The row of a key; −1 where it is not on the shelf.</summary>
    public int RowOf(string key)
    {
        Span<byte> bytes =
            key.Length <= LongestOnStack ? stackalloc byte[LongestOnStack * 3 + 3] : new byte[Encoding.UTF8.GetMaxByteCount(key.Length)];
        var wanted = bytes[..Encoding.UTF8.GetBytes(key, bytes)];
        var at = Slot(wanted);
        return _table[at] - 1;
    }

    /// <summary>A row.</summary>
    public ShelfLine this[int row] =>
        new(
            _ids[row],
            Encoding.UTF8.GetString(KeyBytes(row)),
            Volumes[row],
            Competitions[row],
            _numbers[2][row],
            _numbers[3][row],
            _numbers[4][row],
            _sourceNames[_sources[row]]
        );

    /// <summary>Adds a term, or gives the one with its key new numbers.</summary>
    public void Set(in ShelfLine line)
    {
        Span<byte> bytes =
            line.Key.Length <= LongestOnStack
                ? stackalloc byte[LongestOnStack * 3 + 3]
                : new byte[Encoding.UTF8.GetMaxByteCount(line.Key.Length)];
        Set(
            line.Id,
            bytes[..Encoding.UTF8.GetBytes(line.Key, bytes)],
            line.Volume,
            line.Competition,
            line.TitlesHolding,
            line.ClickCost,
            line.Day,
            line.Source
        );
    }

    /// <summary>The same, with the key as UTF-8.</summary>
    public void Set(
        int id,
        ReadOnlySpan<byte> key,
        double volume,
        double competition,
        double titlesHolding,
        double clickCost,
        double day,
        string source
    )
    {
        var at = Slot(key);
        var row = _table[at] - 1;
        if (row < 0)
        {
            row = Append(key);
            _table[at] = row + 1;
            if (Count * 2 > _table.Length)
                Rehash();
        }

        _ids[row] = id;
        (Volumes[row], Competitions[row], _numbers[2][row], _numbers[3][row], _numbers[4][row]) = (
            volume,
            competition,
            titlesHolding,
            clickCost,
            day
        );
        Headrooms[row] = Headroom(row);
        if (!_sourceNumbers.TryGetValue(source, out var number))
        {
            _sourceNumbers[source] = number = (ushort)_sourceNames.Count;
            _sourceNames.Add(source);
        }

        _sources[row] = number;
        _changes.Add(row);
        ChangesSinceNorm++;
    }

    /// <summary>Takes the norm anew.</summary>
    public MarketStatistics ComputeStatistics()
    {
        Norm = MarketStatistics.Compute(Readings());
        ChangesSinceNorm = 0;
        Headroomed();
        return Norm;

        IEnumerable<(double?, double?)> Readings()
        {
            for (var i = 0; i < Count; i++)
                if (!double.IsNaN(_numbers[4][i]))
                    yield return (Known(Volumes[i]), Known(Competitions[i]));
        }
    }

    /// <summary>Starts from a norm that was kept.</summary>
    public void BeginWith(MarketStatistics norm)
    {
        (Norm, ChangesSinceNorm) = (norm, 0);
        _changes.Clear();
        Headroomed();
    }

    /// <summary>The sources of its readings, with how many each.</summary>
    public IReadOnlyDictionary<string, int> Sources()
    {
        var counts = new int[_sourceNames.Count];
        for (var i = 0; i < Count; i++)
            counts[_sources[i]]++;
        return _sourceNames.Zip(counts).Where(s => s.First.Length > 0 && s.Second > 0).ToDictionary(s => s.First, s => s.Second);
    }

    /// <summary>The ids of the terms that pass, in order, and how many pass in all.</summary>
    public (List<int> Ids, int All) Search(ShelfQuery query)
    {
        if (_passes.Length < Count)
            _passes = new byte[_ids.Length];
        var typed = (query.Has ?? "").Split(' ', StringSplitOptions.RemoveEmptyEntries);
        var not = typed.Where(w => w.Length > 1 && w[0] == '-').SelectMany(w => Words(w[1..])).ToArray();
        var has = typed.Where(w => w.Length == 1 || w[0] != '-').SelectMany(Words).ToArray();
        byte[][] must = [.. Words(query.Head ?? "").Concat(has).OrderByDescending(w => w.Length)];
        var source = query.Source is { Length: > 0 } name
            ? _sourceNumbers.TryGetValue(name, out var number)
                ? number
                : ushort.MaxValue
            : (ushort?)null;
        var onlyThese = query.Head is null && query.Also is not null;
        // Keeps which rows have the words, because the same words come again with other filters, orders and pages.
        var words = string.Join(' ', must.Select(w => Encoding.UTF8.GetString(w)));
        var kept = _having.Find(h => h.Words == words && h.Rows.Length == Count).Rows;
        var having = kept ?? (must.Length > 0 && !onlyThese ? new byte[Count] : null);
        var parts = Math.Clamp(Count / RowsOfPart, 1, Environment.ProcessorCount);
        Parallel.For(
            0,
            parts,
            part =>
            {
                var (from, to) = ((int)((long)Count * part / parts), (int)((long)Count * (part + 1) / parts));
                var some = _passes.AsSpan(from, to - from);
                if (onlyThese)
                    some.Clear();
                else if (kept is not null)
                    kept.AsSpan(from, some.Length).CopyTo(some);
                else
                {
                    Accepts(must, from, some);
                    if (having is not null)
                        some.CopyTo(having.AsSpan(from));
                }

                foreach (var key in query.Also ?? [])
                    if (RowOf(key) is var row && row >= from && row < to && Has(row, has))
                        some[row - from] = 1;
                foreach (var word in not)
                    for (var i = 0; i < some.Length; i++)
                        if (some[i] != 0 && TextOf(from + i).IndexOf(word) >= 0)
                            some[i] = 0;
                Within(some, Volumes.AsSpan(from), query.VolumeFrom, query.VolumeTo);
                Within(some, Competitions.AsSpan(from), query.CompetitionFrom, query.CompetitionTo);
                Within(some, _numbers[2].AsSpan(from), null, query.TitlesTo);
                Within(some, _numbers[3].AsSpan(from), null, query.ClickCostTo);
                Within(some, Headrooms.AsSpan(from), query.HeadroomFrom, query.HeadroomTo);
                if (source is { } wanted)
                    for (var i = 0; i < some.Length; i++)
                        some[i] &= Unsafe.BitCast<bool, byte>(_sources[from + i] == wanted);
            }
        );
        if (having is not null && kept is null)
        {
            if (_having.Count == MostHaving)
                _having.RemoveAt(0);
            _having.Add((words, having));
        }

        ReadOnlySpan<byte> passes = _passes.AsSpan(0, Count);
        var all = passes.Count((byte)1);
        var ids = new List<int>(Math.Min(query.Take, 1024));
        var (order, known) = all <= Few ? Sorted(query.By, RowsOf(passes, all)) : Order(query.By);
        var skip = query.Skip;
        for (var i = 0; i < order.Length && ids.Count < query.Take; i++)
        {
            // Reads known values from either end; unknown values come last in both orders.
            var row = order[query.Down && i < known ? known - 1 - i : i];
            if (passes[row] != 0 && skip-- <= 0)
                ids.Add(_ids[row]);
        }

        return (ids, all);
    }

    private static int[] RowsOf(ReadOnlySpan<byte> passes, int all)
    {
        var rows = new int[all];
        var (at, next) = (0, 0);
        while (passes[at..].IndexOf((byte)1) is >= 0 and var found)
        {
            rows[next++] = at += found;
            at++;
        }

        return rows;
    }

    private static byte[][] Words(string typed) => [.. Tokens.Of(typed).Select(t => Encoding.UTF8.GetBytes(t.Word))];

    // Marks the rows that have all the words: compares bigram signatures first, then the texts that pass.
    private void Accepts(byte[][] must, int from, Span<byte> some)
    {
        some.Fill((byte)(must.Length == 0 ? 1 : 0));
        if (must.Length == 0)
            return;
        var (low, high) = (0UL, 0UL);
        foreach (var word in must)
            Pairs(word, ref low, ref high);
        var lows = _lowPairs.AsSpan(from, some.Length);
        var highs = _highPairs.AsSpan(from, some.Length);
        for (var i = 0; i < some.Length; i++)
            if ((lows[i] & low) == low && (highs[i] & high) == high && Has(from + i, must))
                some[i] = 1;
    }

    private bool Has(int row, byte[][] words)
    {
        var text = TextOf(row);
        foreach (var word in words)
            if (text.IndexOf(word) < 0)
                return false;
        return true;
    }

    // The bigram signature of a text in 128 bits: a text contains a word only if it has all of the word's bits.
    private static void Pairs(ReadOnlySpan<byte> text, ref ulong low, ref ulong high)
    {
        for (var i = 0; i + 1 < text.Length; i++)
        {
            var place = (text[i] * 37 + text[i + 1] * 101) & 127;
            if (place < 64)
                low |= 1UL << place;
            else
                high |= 1UL << (place - 64);
        }
    }

    private static void Within(Span<byte> passes, ReadOnlySpan<double> values, double? from, double? to)
    {
        if (from is null && to is null)
            return;
        var (low, high) = (from ?? double.MinValue, to ?? double.MaxValue);
        for (var i = 0; i < passes.Length; i++)
            passes[i] &= Unsafe.BitCast<bool, byte>(values[i] >= low & values[i] <= high);
    }

    private void Headroomed()
    {
        for (var i = 0; i < Count; i++)
            Headrooms[i] = Headroom(i);
        _orders[(int)ShelfOrder.Headroom] = default;
    }

    private double Headroom(int row) => TermMeasures.Headroom(Known(Volumes[row]), Known(Competitions[row]), Norm.Centre) ?? double.NaN;

    private (int[] Rows, int Known) Order(ShelfOrder by)
    {
        ref var order = ref _orders[(int)by];
        if (order.Rows is null || _changes.Count - order.Seen > Math.Max(1000, Count / 10))
            (order.Rows, order.Known) = Sorted(by, Enumerable.Range(0, Count).ToArray());
        else if (order.Seen < _changes.Count)
            (order.Rows, order.Known) = RepairOrder(by, order.Rows, order.Known, order.Seen);
        order.Seen = _changes.Count;
        return (order.Rows, order.Known);
    }

    private (int[] Rows, int Known) Sorted(ShelfOrder by, int[] rows)
    {
        if (by == ShelfOrder.Text)
        {
            Array.Sort(rows, (a, b) => KeyBytes(a).SequenceCompareTo(KeyBytes(b)));
            return (rows, rows.Length);
        }

        var values = new double[rows.Length];
        var (known, last) = (0, rows.Length);
        var sorted = new int[rows.Length];
        foreach (var row in rows)
            if (Value(by, row) is var value && double.IsNaN(value))
                sorted[--last] = row;
            else
            {
                values[known] = value;
                sorted[known++] = row;
            }

        Array.Sort(values, sorted, 0, known);
        return (sorted, known);
    }

    // Repairs an order after changes: removes the changed rows and inserts them at their new positions.
    private (int[] Rows, int Known) RepairOrder(ShelfOrder by, int[] old, int oldKnown, int seen)
    {
        var changed = _changes.Skip(seen).Distinct().ToArray();
        var moved = new System.Collections.BitArray(Count);
        foreach (var row in changed)
            moved[row] = true;
        var put = Sorted(by, changed);
        var rows = new int[Count];
        var (at, next) = (0, 0);
        for (var i = 0; i < oldKnown; i++)
        {
            if (moved[old[i]])
                continue;
            while (next < put.Known && CompareRows(by, put.Rows[next], old[i]))
                rows[at++] = put.Rows[next++];
            rows[at++] = old[i];
        }

        while (next < put.Known)
            rows[at++] = put.Rows[next++];
        var known = at;
        for (var i = oldKnown; i < old.Length; i++)
            if (!moved[old[i]])
                rows[at++] = old[i];
        for (var i = put.Known; i < put.Rows.Length; i++)
            rows[at++] = put.Rows[i];
        return (rows, known);
    }

    private bool CompareRows(ShelfOrder by, int one, int other) =>
        by == ShelfOrder.Text ? KeyBytes(one).SequenceCompareTo(KeyBytes(other)) < 0 : Value(by, one) < Value(by, other);

    private double Value(ShelfOrder by, int row) =>
        by switch
        {
            ShelfOrder.Volume => Volumes[row],
            ShelfOrder.Competition => Competitions[row],
            ShelfOrder.TitlesHolding => _numbers[2][row],
            ShelfOrder.ClickCost => _numbers[3][row],
            ShelfOrder.TakenAt => _numbers[4][row],
            _ => Headrooms[row],
        };

    private static double? Known(double value) => double.IsNaN(value) ? null : value;

    private ReadOnlySpan<byte> TextOf(int row) => _text.AsSpan(_starts[row], _starts[row + 1] - _starts[row] - 1);

    // The key without the bare letters behind it.
    private ReadOnlySpan<byte> KeyBytes(int row)
    {
        var line = TextOf(row);
        return line.IndexOf(Bare) is >= 0 and var bare ? line[..bare] : line;
    }

    // Each term is its key, then, where letters carry marks, the same without them, so that "pajaros" finds "pájaros".
    private int Append(ReadOnlySpan<byte> key)
    {
        var bare = Ascii.IsValid(key) ? [] : Encoding.UTF8.GetBytes(Fold.Letters(Encoding.UTF8.GetString(key)));
        var row = Count++;
        if (Count >= _ids.Length)
        {
            var size = _ids.Length * 2;
            Array.Resize(ref _ids, size);
            Array.Resize(ref _sources, size);
            Array.Resize(ref _lowPairs, size);
            Array.Resize(ref _highPairs, size);
            Array.Resize(ref _starts, size + 1);
            for (var i = 0; i < _numbers.Length; i++)
                Array.Resize(ref _numbers[i], size);
        }

        var at = _starts[row];
        var length = key.Length + (bare.Length > 0 ? bare.Length + 1 : 0) + 1;
        if (at + length > _text.Length)
            Array.Resize(ref _text, Math.Max(_text.Length * 2, at + length));
        key.CopyTo(_text.AsSpan(at));
        at += key.Length;
        if (bare.Length > 0)
        {
            _text[at++] = Bare;
            bare.CopyTo(_text.AsSpan(at));
            at += bare.Length;
        }

        _text[at++] = End;
        _starts[row + 1] = at;
        (_lowPairs[row], _highPairs[row]) = (0, 0);
        Pairs(TextOf(row), ref _lowPairs[row], ref _highPairs[row]);
        return row;
    }

    // The slot of a key in the hash table, or the free slot for it (open addressing, at most half full).
    private int Slot(ReadOnlySpan<byte> key)
    {
        var hash = new HashCode();
        hash.AddBytes(key);
        var at = hash.ToHashCode() & (_table.Length - 1);
        while (_table[at] is > 0 and var row && !KeyBytes(row - 1).SequenceEqual(key))
            at = (at + 1) & (_table.Length - 1);
        return at;
    }

    private void Rehash()
    {
        _table = new int[_table.Length * 4];
        for (var row = 0; row < Count; row++)
            _table[Slot(KeyBytes(row))] = row + 1;
    }
}
