namespace TinRabbit.Server.Features.Write;

/// <summary>Finishes at the start what a crash left in the outbox.</summary>
internal sealed class PendingSends(IServiceScopeFactory scopes, ILogger<PendingSends> log) : BackgroundService
{
    protected override async Task ExecuteAsync(CancellationToken stop)
    {
        try
        {
            await using var scope = scopes.CreateAsyncScope();
            await scope.ServiceProvider.GetRequiredService<ListingSender>().SendPending(stop);
        }
        catch (MarketException e)
        {
            log.LogWarning(
                e,
                "A listing that was being sent when the program stopped could not be sent. It is tried again at the next start."
            );
        }
    }
}
