namespace TinRabbit.Server.Storage;

/// <summary>
/// Lets one writer at a time into the database. SQLite allows one in any case; waiting here instead of there keeps the order of arrival,
/// so that a save gets in between two portions of a long import.
/// </summary>
public sealed class WriteGate : IDisposable
{
    private readonly SemaphoreSlim _gate = new(1, 1);

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
