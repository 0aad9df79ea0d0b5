namespace TinRabbit.Server.Tests;

/// <summary>A clock whose day does not end during a test: at midnight the daily check would change what the test compares.</summary>
/// <param name="start">When it begins.</param>
internal sealed class StayingClock(DateTimeOffset start) : TimeProvider
{
    private readonly long _began = System.GetTimestamp();

    public override DateTimeOffset GetUtcNow()
    {
        var (now, end) = (start + System.GetElapsedTime(_began), new DateTimeOffset(start.Date.AddDays(1).AddTicks(-1), TimeSpan.Zero));
        return now < end ? now : end;
    }
}
