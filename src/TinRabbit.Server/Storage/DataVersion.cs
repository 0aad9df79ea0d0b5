namespace TinRabbit.Server.Storage;

/// <summary>Counts the changes to what listings are weighed and checked with, so that what was made from it knows when it is old.</summary>
public sealed class DataVersion
{
    private long _count;
    private long _pages;

    /// <summary>How many there were to picks, terms, readings, facts and profiles.</summary>
    public long Count => Volatile.Read(ref _count);

    /// <summary>How many there were to the web shop and its pages.</summary>
    public long Pages => Volatile.Read(ref _pages);

    /// <summary>There was another.</summary>
    public void Bump() => Interlocked.Increment(ref _count);

    /// <summary>There was another to pages.</summary>
    public void BumpPages() => Interlocked.Increment(ref _pages);
}
