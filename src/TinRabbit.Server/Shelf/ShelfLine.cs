using TinRabbit.Core.Shapes;

namespace TinRabbit.Server.Shelf;

/// <summary>One row of a shelf as it is kept in memory.</summary>
/// <param name="Key">The term's words.</param>
/// <param name="Volume">NaN where unknown, as the other numbers.</param>
/// <param name="Popularity">Its rank among the terms that are searched for, from 1.</param>
/// <param name="Trend">How it has moved; null without searches by month.</param>
/// <param name="Clicks">Clicks on the seller's own listings, with <paramref name="Orders"/> and their worth.</param>
/// <param name="Day">Days since 1970 that it was measured; NaN where nobody has.</param>
public readonly record struct ShelfLine(
    int Id,
    string Key,
    double Volume,
    double Competition,
    double TitlesHolding,
    double ClickCost,
    double Day,
    string Source,
    double Popularity = double.NaN,
    MonthTrend? Trend = null,
    double Clicks = double.NaN,
    double Orders = double.NaN,
    double Sales = double.NaN
)
{
    /// <summary>A term with its reading.</summary>
    /// <param name="withTrend">Whether how it has moved is computed, too: it takes longer than all else.</param>
    public static ShelfLine Of(TermRow term, bool withTrend) =>
        term.Reading is not { } r
            ? new(term.Id, term.Key, double.NaN, double.NaN, double.NaN, double.NaN, double.NaN, "")
            : new(
                term.Id,
                term.Key,
                r.Volume ?? double.NaN,
                r.Competition ?? double.NaN,
                r.TitlesHolding ?? double.NaN,
                r.ClickCost is { } c ? (double)c : double.NaN,
                DayOf(r.TakenAt),
                r.Source,
                r.Popularity ?? double.NaN,
                withTrend ? MonthTrend.Of(r.Months, r.From) : null,
                r.Clicks ?? double.NaN,
                r.Orders ?? double.NaN,
                r.Sales is { } s ? (double)s : double.NaN
            );

    internal static double DayOf(DateTime at) => Math.Floor((at - DateTime.UnixEpoch).TotalDays);
}
