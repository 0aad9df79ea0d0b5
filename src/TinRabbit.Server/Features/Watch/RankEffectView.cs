using TinRabbit.Core.Comparing;
using TinRabbit.Core.Watching;

namespace TinRabbit.Server.Features.Watch;

/// <summary>What happened to a listing's ranks after a change.</summary>
/// <param name="Terms">Terms that find it on both sides.</param>
/// <param name="Before">The median over them of their median daily rank before; null where there are none.</param>
/// <param name="After">The same after.</param>
/// <param name="Better">Terms whose rank is better than before.</param>
/// <param name="Worse">Terms whose rank is worse.</param>
/// <param name="Gained">Terms that find it now and did not.</param>
/// <param name="Lost">Terms that found it and do not now.</param>
/// <param name="P">How likely chance alone moves the ranks so far; null with too few terms or days.</param>
/// <param name="DaysBefore">Days with a check before the change.</param>
/// <param name="DaysAfter">Days with a check after it.</param>
/// <param name="From">The first day that was compared.</param>
/// <param name="To">The last one.</param>
/// <param name="Says">The verdict as a sentence.</param>
public sealed record RankEffectView(
    int Terms,
    double? Before,
    double? After,
    int Better,
    int Worse,
    IReadOnlyList<string> Gained,
    IReadOnlyList<string> Lost,
    double? P,
    Verdict Verdict,
    int DaysBefore,
    int DaysAfter,
    DateOnly From,
    DateOnly To,
    string Says
)
{
    internal static RankEffectView Of(RankEffect effect, ChangeWindows windows) =>
        new(
            effect.Terms,
            effect.Before,
            effect.After,
            effect.Better,
            effect.Worse,
            effect.Gained,
            effect.Lost,
            effect.P,
            effect.Verdict,
            effect.DaysBefore,
            effect.DaysAfter,
            windows.Earliest,
            windows.Latest,
            WatchMessages.Ranks(effect)
        );
}
