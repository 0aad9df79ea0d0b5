using Microsoft.Data.Sqlite;

namespace TinRabbit.Server.Requests;

/// <summary>
/// Runs an endpoint again when another request changed the same rows between its reading and its writing: the second run sees the
/// state that the other one left. An endpoint that asks for it reads, decides and saves once, and does nothing outside the database.
/// </summary>
internal static class RaceRetry
{
    private const int Tries = 5;

    /// <summary>Marks the endpoints that run again.</summary>
    public static readonly object Marker = new();

    /// <summary>Lets an endpoint run again after a race.</summary>
    public static RouteHandlerBuilder RetriesRaces(this RouteHandlerBuilder endpoint) =>
        endpoint.AddEndpointFilter(Filter).WithMetadata(Marker);

    private static async ValueTask<object?> Filter(EndpointFilterInvocationContext context, EndpointFilterDelegate next)
    {
        for (var attempt = 1; ; attempt++)
            try
            {
                return await next(context);
            }
            catch (Exception e) when (attempt < Tries && IsRace(e) && !context.HttpContext.Response.HasStarted)
            {
                context.HttpContext.RequestServices.GetRequiredService<TinContext>().StartAgain();
            }
    }

    // 19: a row with the same key was added meanwhile.
    private static bool IsRace(Exception e) =>
        e is DbUpdateConcurrencyException or DbUpdateException { InnerException: SqliteException { SqliteErrorCode: 19 } };
}
