namespace TinRabbit.Server.Storage;

/// <summary>Counts the changes to picks, terms, readings and profiles, so that what was made from them knows when it is old.</summary>
public sealed class DataVersion
{
    private long _count;

    /// <summary>How many there were.</summary>
    public long Count => Volatile.Read(ref _count);

    /// <summary>There was another.</summary>
    public void Bump() => Interlocked.Increment(ref _count);
}
