namespace TinRabbit.Server.Undo;

/// <summary>
/// The times of changes. What is deleted together is known by its time, and what came first by the earlier one, so no two changes of a shop
/// have the same.
/// </summary>
internal sealed class ChangeTimes
{
    private long _last;

    /// <summary>The time, or just after that of the last change.</summary>
    public DateTime Next(DateTime time)
    {
        while (true)
        {
            var last = Interlocked.Read(ref _last);
            var now = Math.Max(time.Ticks, last + 1);
            if (Interlocked.CompareExchange(ref _last, now, last) == last)
                return new(now, DateTimeKind.Utc);
        }
    }
}
