namespace TinRabbit.Server.Tests;

/// <summary>A clock that begins at noon of a day, so that the day does not end during a test: at midnight the daily check would change what the test compares.</summary>
internal sealed class NoonClock(DateOnly day) : TimeProvider
{
    private readonly long _began = System.GetTimestamp();

    public override DateTimeOffset GetUtcNow() => new DateTimeOffset(day, new(12, 0), TimeSpan.Zero) + System.GetElapsedTime(_began);
}
