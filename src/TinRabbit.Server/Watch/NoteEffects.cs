using TinRabbit.Core.Comparing;
using TinRabbit.Server.Storage;

namespace TinRabbit.Server.Watch;

/// <summary>What happened after a change, by one measure.</summary>
/// <param name="DailyBefore">The mean of a day before it; null where nothing was compared.</param>
/// <param name="DailyAfter">The mean of a day after it.</param>
/// <param name="Difference">In percent, what happened to the control taken off.</param>
/// <param name="Low">The lower end of the 95 % interval.</param>
/// <param name="High">Its upper end.</param>
/// <param name="Days">Days on each side.</param>
/// <param name="DaysNeeded">How many more days a difference of this size would need.</param>
/// <param name="From">The first day before; null where nothing was compared.</param>
/// <param name="To">The last day after.</param>
/// <param name="Controls">How many untouched listings were compared with; 0 where none could be.</param>
/// <param name="Says">The verdict as a sentence.</param>
public sealed record EffectView(
    Measure Measure,
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
    int Controls,
    string Says
)
{
    /// <summary>The logarithm of the ratio with its variance; null where nothing was compared.</summary>
    internal (double Log, double Variance)? Effect { get; init; }
}

/// <summary>Compares the days before a change note with those after it, beside what the change could not touch (docs/model.md, "Before and after").</summary>
/// <param name="figures">The daily figures of the whole shop.</param>
/// <param name="notes">Every change note of the shop.</param>
/// <param name="products">The product of each listing.</param>
internal sealed class NoteEffects(IReadOnlyList<DailyFigures> figures, IReadOnlyList<NoteRow> notes, IReadOnlyDictionary<int, int> products)
{
    // Fewer a day on both sides say nothing.
    private const double LeastDaily = 1;

    /// <summary>Whether any figure of what a note is about is known.</summary>
    public bool Knows(NoteRow note) => figures.Any(f => Touches(note, f));

    /// <summary>What happened after a note.</summary>
    public EffectView Of(NoteRow note, Measure measure)
    {
        var own = figures.Where(f => Touches(note, f)).ToList();
        var (changed, counts) = (DayOf(note.At), FirstDay(note));
        // Other changes of the same listings end the windows: what they did is not this one's.
        var longest = counts.AddDays(BeforeAfter.LongestWindow - 1);
        var (earliest, latest) = (changed.AddDays(-BeforeAfter.LongestWindow), longest);
        foreach (var other in notes.Where(n => n.Id != note.Id && own.Any(f => Touches(n, f))))
        {
            if (FirstDay(other) is var from && DayOf(other.At) < changed && from > earliest)
                earliest = from;
            if (DayOf(other.At) is var begins && begins > changed && begins <= latest)
                latest = begins.AddDays(-1);
        }

        var before = Days(own, measure, changed.AddDays(-1), earliest, -1);
        var after = Days(own, measure, counts, latest, 1);
        before.Reverse();
        var days = Math.Min(before.Count, after.Count) / BeforeAfter.Week * BeforeAfter.Week;
        var (first, last) = (changed.AddDays(-days), counts.AddDays(days - 1));
        var others = days == 0 ? [] : Untouched(own, measure, first, last, changed, counts);
        var leftOut = counts.DayNumber - changed.DayNumber;
        var isFew = days > 0 && Math.Max(before.TakeLast(days).Average(), after.Take(days).Average()) < LeastDaily;
        var found = isFew
            ? new(null, null, null, Verdict.Unclear, null, days)
            : BeforeAfter.Of(
                new(before, after, leftOut),
                Control(others, measure, before.TakeLast(days), (first, changed.AddDays(-1)), (counts, last), leftOut)
            );
        return new(
            measure,
            found.Days == 0 ? null : before.TakeLast(found.Days).Average(),
            found.Days == 0 ? null : after.Take(found.Days).Average(),
            found.Difference,
            found.Low,
            found.High,
            found.Verdict,
            found.Days,
            found.DaysNeeded,
            found.Days == 0 ? null : changed.AddDays(-found.Days),
            found.Days == 0 ? null : counts.AddDays(found.Days - 1),
            others.Count,
            isFew
                ? Messages.TooFew(measure)
                : Messages.Effect(
                    measure,
                    found,
                    after.Count,
                    latest < longest && counts.AddDays(after.Count) > latest,
                    before.Count < BeforeAfter.Week && changed.AddDays(-before.Count) == earliest
                )
        )
        {
            Effect = found.Effect,
        };
    }

    private bool Touches(NoteRow note, DailyFigures of) =>
        note.ListingId is { } listing
            ? listing == of.ListingId && (note.MarketId is null || note.MarketId == of.MarketId)
            : note.ProductId is null || products.GetValueOrDefault(of.ListingId) == note.ProductId;

    private static DateOnly DayOf(DateTime at) => DateOnly.FromDateTime(at);

    // The first whole day on which the change counts.
    private static DateOnly FirstDay(NoteRow note) => DayOf(note.CountsFrom > note.At ? note.CountsFrom : note.At).AddDays(1);

    // Day after day in one direction, as long as every listing is known.
    private static List<double> Days(List<DailyFigures> of, Measure measure, DateOnly from, DateOnly to, int step)
    {
        var days = new List<double>();
        if (of.Count == 0)
            return days;
        for (var day = from; step > 0 ? day <= to : day >= to; day = day.AddDays(step))
        {
            var sum = 0.0;
            foreach (var one in of)
                if (one.Days.TryGetValue(day, out var known) && known[measure] is { } count)
                    sum += count;
                else
                    return days;
            days.Add(sum);
        }

        return days;
    }

    // Listings that are known on every day and were not changed on any of them.
    private List<DailyFigures> Untouched(
        List<DailyFigures> own,
        Measure measure,
        DateOnly first,
        DateOnly last,
        DateOnly changed,
        DateOnly counts
    )
    {
        var all = figures
            .Where(f =>
                !own.Contains(f)
                && !notes.Any(n => Touches(n, f) && FirstDay(n) > first && DayOf(n.At) <= last)
                && Days([f], measure, first, changed.AddDays(-1), 1).Count == changed.DayNumber - first.DayNumber
                && Days([f], measure, counts, last, 1).Count == last.DayNumber - counts.DayNumber + 1
            )
            .ToList();
        // The most alike: the same product elsewhere, which has the same season; then the same market, then any.
        var same = all.Where(f =>
                own.Any(o => products.GetValueOrDefault(o.ListingId) is var p && p != 0 && p == products.GetValueOrDefault(f.ListingId))
            )
            .ToList();
        var near = all.Where(f => own.Any(o => o.MarketId == f.MarketId)).ToList();
        return same.Count > 0 ? same
            : near.Count > 0 ? near
            : all;
    }

    // What happened to others, brought to the size of the listing itself: log(1 + count) is not a ratio where counts are small.
    private static DailyCounts? Control(
        List<DailyFigures> others,
        Measure measure,
        IEnumerable<double> ownBefore,
        (DateOnly First, DateOnly Last) before,
        (DateOnly First, DateOnly Last) after,
        int leftOut
    )
    {
        if (others.Count == 0)
            return null;
        var (early, late) = (Days(others, measure, before.First, before.Last, 1), Days(others, measure, after.First, after.Last, 1));
        if (early.Average() == 0)
            return null;
        var size = ownBefore.Average() / early.Average();
        return new([.. early.Select(c => c * size)], [.. late.Select(c => c * size)], leftOut);
    }
}
