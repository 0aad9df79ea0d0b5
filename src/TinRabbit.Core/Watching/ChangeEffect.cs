using TinRabbit.Core.Comparing;

namespace TinRabbit.Core.Watching;

/// <summary>What happened after a change, by one measure.</summary>
/// <param name="Measure">What was counted.</param>
/// <param name="DailyBefore">The mean of a day before it; null where nothing was compared.</param>
/// <param name="DailyAfter">The mean of a day after it.</param>
/// <param name="Found">The comparison; without a difference in percent where a side has less than one a day.</param>
/// <param name="From">The first day before; null where nothing was compared.</param>
/// <param name="To">The last day after.</param>
/// <param name="Demand">How much more its terms were searched on the days after, in percent; that is taken off. Null where it is not known.</param>
/// <param name="Controls">Where the demand is not known: how many untouched listings were compared with instead; 0 where none could be.</param>
/// <param name="DaysAfter">The days after the change that are known.</param>
/// <param name="IsTooFew">Whether both sides have less than one a day, so that nothing can be said.</param>
/// <param name="IsCut">Whether the next change ended the days after it, so that there will not be more.</param>
/// <param name="IsCutBefore">Whether the change before it left less than a week.</param>
public sealed record ChangeEffect(
    DailyMeasure Measure,
    double? DailyBefore,
    double? DailyAfter,
    BeforeAfter Found,
    DateOnly? From,
    DateOnly? To,
    double? Demand,
    int? Controls,
    int DaysAfter,
    bool IsTooFew,
    bool IsCut,
    bool IsCutBefore
);
