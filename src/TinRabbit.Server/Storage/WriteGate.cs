namespace TinRabbit.Server.Storage;

/// <summary>
/// Lets one writer at a time into the database. SQLite allows one in any case; waiting here instead of there keeps the order of arrival,
/// so that a save gets in between two portions of a long import.
/// </summary>
public sealed class WriteGate : IDisposable
{
    private readonly SemaphoreSlim _gate = new(1, 1);

    private int _era;

    /// <summary>Counts how often another database took the place of the one there was: what was read before says nothing about it.</summary>
    public int Era => Volatile.Read(ref _era);

    /// <summary>Another database is in place. Is called by whoever has the turn.</summary>
    public void StartEra() => Interlocked.Increment(ref _era);

    /// <summary>Waits for a turn; disposing what is returned ends it.</summary>
    public async Task<IDisposable> Enter(CancellationToken stop)
    {
        await _gate.WaitAsync(stop);
        return new Lease(_gate);
    }

    /// <inheritdoc/>
    public void Dispose() => _gate.Dispose();

    private sealed class Lease(SemaphoreSlim gate) : IDisposable
    {
        private int _ended;

        public void Dispose()
        {
            if (Interlocked.Exchange(ref _ended, 1) == 0)
                gate.Release();
        }
    }
}
