using TinRabbit.Core.Comparing;
using TinRabbit.Core.Watching;

namespace TinRabbit.Server.Features.Watch;

/// <summary>What happened after a change, by one measure.</summary>
/// <param name="DailyBefore">The mean of a day before it; null where nothing was compared.</param>
/// <param name="DailyAfter">The mean of a day after it.</param>
/// <param name="Difference">In percent, what happened to the demand or the control taken off; null where nothing was compared, or where a side has less than one a day.</param>
/// <param name="Low">The lower end of the 95 % interval.</param>
/// <param name="High">Its upper end.</param>
/// <param name="Days">Days on each side.</param>
/// <param name="DaysNeeded">How many more days a difference of this size would need.</param>
/// <param name="From">The first day before; null where nothing was compared.</param>
/// <param name="To">The last day after.</param>
/// <param name="Demand">How much more its terms were searched on the days after, in percent; that is taken off. Null where it is not known.</param>
/// <param name="Controls">Where the demand is not known: how many untouched listings were compared with instead; 0 where none could be.</param>
/// <param name="Says">The verdict as a sentence.</param>
public sealed record EffectView(
    DailyMeasure Measure,
    double? DailyBefore,
    double? DailyAfter,
    double? Difference,
    double? Low,
    double? High,
    Verdict Verdict,
    int Days,
    int? DaysNeeded,
    DateOnly? From,
    DateOnly? To,
    double? Demand,
    int? Controls,
    string Says
)
{
    internal static EffectView Of(ChangeEffect effect) =>
        new(
            effect.Measure,
            effect.DailyBefore,
            effect.DailyAfter,
            effect.Found.Difference,
            effect.Found.Low,
            effect.Found.High,
            effect.Found.Verdict,
            effect.Found.Days,
            effect.Found.DaysNeeded,
            effect.From,
            effect.To,
            effect.Demand,
            effect.Controls,
            WatchMessages.Effect(effect)
        );
}
