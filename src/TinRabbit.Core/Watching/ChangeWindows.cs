using TinRabbit.Core.Comparing;

namespace TinRabbit.Core.Watching;

/// <summary>The days that can be compared around a change. Other changes of the same listings end them: what those did is not this one's.</summary>
/// <param name="Changed">The day of the change; the days before it count.</param>
/// <param name="Counts">The first day after it that counts.</param>
/// <param name="Earliest">The first day before it that may be compared.</param>
/// <param name="Latest">The last day after it that may be compared.</param>
public sealed record ChangeWindows(DateOnly Changed, DateOnly Counts, DateOnly Earliest, DateOnly Latest)
{
    /// <summary>Whether a later change ended the days after it.</summary>
    public bool IsCut => Latest < Counts.AddDays(BeforeAfter.LongestWindow - 1);

    /// <summary>The windows of one change among others.</summary>
    public static ChangeWindows Of(ChangeNote note, IEnumerable<ChangeNote> others)
    {
        var (changed, counts) = (note.Day, note.FirstDay);
        var (earliest, latest) = (changed.AddDays(-BeforeAfter.LongestWindow), counts.AddDays(BeforeAfter.LongestWindow - 1));
        foreach (var other in others.Where(n => n.Id != note.Id))
        {
            if (other.Day < changed && other.FirstDay > earliest)
                earliest = other.FirstDay;
            if (other.Day > changed && other.Day <= latest)
                latest = other.Day.AddDays(-1);
        }

        return new(changed, counts, earliest, latest);
    }
}
