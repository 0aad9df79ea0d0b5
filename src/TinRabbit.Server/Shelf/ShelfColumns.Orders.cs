namespace TinRabbit.Server.Shelf;

/// <content>Rows in the order of a column: an order is kept, and repaired after few changes.</content>
public sealed partial class ShelfColumns
{
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
            // Below all that have searches, those whose rank is known: the most popular first.
            ShelfOrder.Volume => double.IsNaN(Volumes[row]) ? -Popularities[row] : Volumes[row],
            ShelfOrder.Competition => Competitions[row],
            ShelfOrder.TitlesHolding => _numbers[2][row],
            ShelfOrder.ClickCost => _numbers[3][row],
            ShelfOrder.TakenAt => _numbers[4][row],
            ShelfOrder.Headroom => Headrooms[row],
            _ => Late(by)[row],
        };
}
