namespace TinRabbit.Core.Shapes;

/// <summary>How a term has moved, from its searches by month.</summary>
/// <param name="LastMonth">Searches in the newest month that is known.</param>
/// <param name="Change3">The newest three months against the three before them, in percent; null under six months, or where there was no search before.</param>
/// <param name="Change12">The change over twelve months along the Theil–Sen line, in percent, as in <see cref="YearShape.Change12"/>; null under twelve months.</param>
/// <param name="Shape">The shape of its year; null under twelve months.</param>
/// <param name="PeakMonths">For a seasonal one, its peak months from 1 (January), in the order of the season; otherwise empty.</param>
public sealed record MonthTrend(double LastMonth, double? Change3, double? Change12, Shape? Shape, IReadOnlyList<int> PeakMonths)
{
    private const int Quarter = 3;

    /// <summary>Computes it.</summary>
    /// <param name="months">Searches by month, oldest first.</param>
    /// <param name="from">The month that they begin with; null where that is unknown, and with it the peak months.</param>
    /// <returns>Null where no month is known.</returns>
    public static MonthTrend? Of(IReadOnlyList<int>? months, DateOnly? from)
    {
        if (months is not { Count: > 0 })
            return null;
        var values = months.Select(m => (double)m).ToArray();
        var year = YearShape.Of(values, from ?? DateOnly.MinValue);
        return new(
            values[^1],
            values.Length < 2 * Quarter ? null : Change(values[^(2 * Quarter)..^Quarter].Sum(), values[^Quarter..].Sum()),
            year?.Change12,
            year?.Shape,
            from is null || year is null ? [] : year.PeakMonths
        );
    }

    private static double? Change(double before, double after) => before > 0 ? (after / before - 1) * 100 : null;
}
