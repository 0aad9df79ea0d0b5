using TinRabbit.Core.Shapes;

namespace TinRabbit.Server.Shelf;

/// <content>Numbers that few searches ask for: how a term has moved, and its searches on the web. They are read when a search first needs them.</content>
public sealed partial class ShelfColumns
{
    private const ShelfOrder FirstLate = ShelfOrder.LastMonth;

    private readonly double[]?[] _late = new double[]?[Orders - (int)FirstLate];

    /// <summary>Whether it is known how its terms have moved.</summary>
    public bool HasTrends => _late[0] is not null;

    /// <summary>Whether it has searches on the web; they may be old.</summary>
    public bool HasWeb => _late[ShelfOrder.WebVolume - FirstLate] is not null;

    /// <summary>Whether it is known what the seller's own listings earned by its terms.</summary>
    public bool HasEarnings => _late[ShelfOrder.Clicks - FirstLate] is not null;

    /// <summary>What its searches on the web were taken from; null where they were not.</summary>
    public object? WebFrom { get; private set; }

    /// <summary>Another number after each change of a term.</summary>
    public int Changes => _changes.Count;

    /// <summary>Takes in how its terms have moved.</summary>
    /// <param name="trends">By key.</param>
    public void TakeTrends(IEnumerable<(string Key, MonthTrend Trend)> trends)
    {
        for (var by = FirstLate; by <= ShelfOrder.Shape; by++)
            Begin(by);
        foreach (var (key, trend) in trends)
            if (RowOf(key) is >= 0 and var row)
                SetTrend(row, trend);
    }

    /// <summary>Takes in what the seller's own listings earned by its terms; NaN is unknown.</summary>
    /// <param name="earnings">By key.</param>
    public void TakeEarnings(IEnumerable<(string Key, double Clicks, double Orders, double Sales)> earnings)
    {
        for (var by = ShelfOrder.Clicks; by <= ShelfOrder.Sales; by++)
            Begin(by);
        foreach (var (key, clicks, orders, sales) in earnings)
            if (RowOf(key) is >= 0 and var row)
                SetEarnings(row, clicks, orders, sales);
    }

    /// <summary>Takes in the searches that its terms have on the web.</summary>
    /// <param name="volumeOf">Searches by key; NaN where they are unknown.</param>
    /// <param name="from">What they are taken from, by which it is known later whether they are still right.</param>
    public void TakeWeb(Func<string, double> volumeOf, object from)
    {
        Begin(ShelfOrder.WebVolume);
        var volumes = Late(ShelfOrder.WebVolume);
        for (var row = 0; row < Count; row++)
            volumes[row] = volumeOf(Encoding.UTF8.GetString(KeyBytes(row)));
        WebFrom = from;
    }

    /// <summary>The searches that are known, by key.</summary>
    public Dictionary<string, double> VolumesByKey()
    {
        var volumes = new Dictionary<string, double>(Count, StringComparer.Ordinal);
        for (var row = 0; row < Count; row++)
            if (!double.IsNaN(Volumes[row]))
                volumes[Encoding.UTF8.GetString(KeyBytes(row))] = Volumes[row];
        return volumes;
    }

    private double[] Late(ShelfOrder by) =>
        _late[by - FirstLate] ?? throw new InvalidOperationException($"The shelf's numbers by {by} were not read.");

    private void Begin(ShelfOrder by)
    {
        var values = new double[_ids.Length];
        Array.Fill(values, double.NaN);
        _late[by - FirstLate] = values;
        _orders[(int)by] = default;
    }

    private void SetEarnings(int row, double clicks, double orders, double sales) =>
        (Late(ShelfOrder.Clicks)[row], Late(ShelfOrder.Orders)[row], Late(ShelfOrder.Sales)[row]) = (clicks, orders, sales);

    private void KeepLate(int row, in ShelfLine line)
    {
        if (HasEarnings)
            SetEarnings(row, line.Clicks, line.Orders, line.Sales);
        if (HasTrends)
            SetTrend(row, line.Trend);
        WebFrom = null;
    }

    private void SetTrend(int row, MonthTrend? trend)
    {
        Late(ShelfOrder.LastMonth)[row] = trend?.LastMonth ?? double.NaN;
        Late(ShelfOrder.Change3)[row] = trend?.Change3 ?? double.NaN;
        Late(ShelfOrder.Change12)[row] = trend?.Change12 ?? double.NaN;
        Late(ShelfOrder.Shape)[row] = trend?.Shape is { } shape ? (int)shape : double.NaN;
    }

    private void ResizeLate(int size)
    {
        for (var i = 0; i < _late.Length; i++)
            if (_late[i] is { } values)
            {
                var before = values.Length;
                Array.Resize(ref values, size);
                Array.Fill(values, double.NaN, before, size - before);
                _late[i] = values;
            }
    }

    private void WithinLate(Span<byte> some, int from, ShelfOrder by, double? least)
    {
        if (least is not null)
            Within(some, Late(by).AsSpan(from), least, null);
    }
}
