using TinRabbit.Server.Markets;

namespace TinRabbit.Server.Features.Dig;

/// <summary>How far measuring in the background is, and what is left of the day's lookups.</summary>
/// <param name="Done">Terms that were asked for.</param>
/// <param name="All">Terms that had no numbers.</param>
/// <param name="Measured">Terms that were asked for since the program started: more of them mean new numbers.</param>
/// <param name="IsRunning">Whether it is at work, or is about to look at what has changed.</param>
/// <param name="IsStopped">Whether the seller stopped it.</param>
/// <param name="Problem">Why it does not go on; null where nothing is wrong.</param>
/// <param name="PerDay">Lookups a day that the source allows; null without a limit.</param>
/// <param name="Left">Lookups that are left today; null without a limit.</param>
public sealed record MeasuringView(
    int Done,
    int All,
    int Measured,
    bool IsRunning,
    bool IsStopped,
    string? Problem,
    int? PerDay,
    int? Left
);

internal static class MeasuringApi
{
    public static void MapMeasuring(this IEndpointRouteBuilder app)
    {
        var api = app.MapGroup("/api/measuring");
        api.MapGet("", GetMeasuring);
        api.MapPost("/stop", StopMeasuring);
        api.MapPost("/resume", ResumeMeasuring);
    }

    private static async Task<MeasuringView> GetMeasuring(
        TinContext db,
        MeasuringService service,
        LookupBudget budget,
        CancellationToken stop
    )
    {
        var state = service.State;
        return new MeasuringView(
            state.Done,
            state.All,
            service.Measured,
            service.IsRunning,
            service.IsStopped,
            state.Problem,
            budget.PerDay,
            await budget.Left(db, stop)
        );
    }

    private static NoContent StopMeasuring(MeasuringService service)
    {
        service.Stop();
        return TypedResults.NoContent();
    }

    private static NoContent ResumeMeasuring(MeasuringService service)
    {
        service.Resume();
        return TypedResults.NoContent();
    }
}
