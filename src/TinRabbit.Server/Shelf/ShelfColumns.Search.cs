using System.Runtime.CompilerServices;

namespace TinRabbit.Server.Shelf;

/// <content>Which rows pass the filters.</content>
public sealed partial class ShelfColumns
{
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
                WithinLate(some, from, ShelfOrder.LastMonth, query.LastMonthFrom);
                WithinLate(some, from, ShelfOrder.Change3, query.Change3From);
                WithinLate(some, from, ShelfOrder.Change12, query.Change12From);
                WithinLate(some, from, ShelfOrder.WebVolume, query.WebVolumeFrom);
                WithinLate(some, from, ShelfOrder.Clicks, query.ClicksFrom);
                WithinLate(some, from, ShelfOrder.Orders, query.OrdersFrom);
                WithinLate(some, from, ShelfOrder.Sales, query.SalesFrom);
                if (query.Shape is { } shape)
                    Within(some, Late(ShelfOrder.Shape).AsSpan(from), (int)shape, (int)shape);
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

    private double Headroom(int row) => Norm.HeadroomOf(Known(Volumes[row]), Known(Competitions[row]), Known(Titles[row])) ?? double.NaN;
}
