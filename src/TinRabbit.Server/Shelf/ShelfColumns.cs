namespace TinRabbit.Server.Shelf;

/// <summary>
/// A market's shelf in columns, so that a million terms are searched in milliseconds: the words of all terms lie in one text with
/// a digest of the pairs of letters of each, the numbers in arrays, and an order once made is kept and mended. Not safe for two threads at once.
/// </summary>
public sealed partial class ShelfColumns
{
    /// <summary>The time, by which readings grow old: that of the question.</summary>
    public DateTime Now { get; set; }

    private const byte End = (byte)'\n';
    private const byte Bare = 1;
    private const int Orders = 15;
    private const int LongestOnStack = 200;

    // Up to this many results are sorted for each search; more are read from an order of all rows that is kept.
    private const int Few = 5000;

    private const int MostHaving = 8;

    // With so many terms on the shelf it is decided what stands for supply.
    private const int TermsForSupply = 20;

    // The fewest rows for which a thread of its own pays.
    private const int RowsOfPart = 50_000;

    private byte[] _text = new byte[1 << 12];
    private int[] _starts = new int[65];
    private int[] _ids = new int[64];
    private readonly double[][] _numbers = [.. Enumerable.Range(0, 7).Select(_ => new double[64])];
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
        + _numbers.Concat(_late.OfType<double[]>()).Sum(n => 8L * n.Length)
        + 18L * _sources.Length
        + _passes.Length
        + _having.Sum(h => (long)h.Rows.Length)
        + _orders.Sum(o => 4L * (o.Rows?.Length ?? 0));

    private double[] Volumes => _numbers[0];
    private double[] Competitions => _numbers[1];
    private double[] Titles => _numbers[2];
    private double[] Headrooms => _numbers[5];
    private double[] Popularities => _numbers[6];

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
            _sourceNames[_sources[row]],
            Popularities[row]
        );

    /// <summary>Adds a term, or gives the one with its key new numbers.</summary>
    public void Set(in ShelfLine line)
    {
        Span<byte> bytes =
            line.Key.Length <= LongestOnStack
                ? stackalloc byte[LongestOnStack * 3 + 3]
                : new byte[Encoding.UTF8.GetMaxByteCount(line.Key.Length)];
        var row = Set(
            line.Id,
            bytes[..Encoding.UTF8.GetBytes(line.Key, bytes)],
            line.Volume,
            line.Competition,
            line.TitlesHolding,
            line.ClickCost,
            line.Day,
            line.Source,
            line.Popularity
        );
        KeepLate(row, line);
    }

    /// <summary>The same, with the key as UTF-8.</summary>
    /// <returns>Its row.</returns>
    public int Set(
        int id,
        ReadOnlySpan<byte> key,
        double volume,
        double competition,
        double titlesHolding,
        double clickCost,
        double day,
        string source,
        double popularity = double.NaN
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
        Popularities[row] = popularity;
        Headrooms[row] = Headroom(row);
        if (!_sourceNumbers.TryGetValue(source, out var number))
        {
            _sourceNumbers[source] = number = (ushort)_sourceNames.Count;
            _sourceNames.Add(source);
        }

        _sources[row] = number;
        _changes.Add(row);
        ChangesSinceNorm++;
        return row;
    }

    /// <summary>Takes the norm anew. What stands for supply is chosen once there are readings enough, and stays.</summary>
    /// <param name="supply">What the seller chooses to stand for supply; null where it stays as it is.</param>
    public MarketStatistics ComputeStatistics(Supply? supply = null)
    {
        var decided = supply is not null || Norm.IsSupplyChosen || Count >= TermsForSupply;
        var chosen = supply ?? (Norm.IsSupplyChosen || !decided ? Norm.Supply : MarketStatistics.UsualSupply(Readings()));
        Norm = MarketStatistics.Compute(Readings(), chosen) with { IsSupplyChosen = decided };
        ChangesSinceNorm = 0;
        Headroomed();
        return Norm;

        IEnumerable<ReadingNumbers> Readings()
        {
            for (var i = 0; i < Count; i++)
                if (!double.IsNaN(_numbers[4][i]))
                    yield return new(Known(Volumes[i]), Known(Competitions[i]), Known(Titles[i]), Known(_numbers[3][i]));
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
            ResizeLate(size);
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
