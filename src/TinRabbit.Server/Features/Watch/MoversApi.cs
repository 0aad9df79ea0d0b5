namespace TinRabbit.Server.Features.Watch;

/// <summary>The watched listings that moved most.</summary>
internal static class MoversApi
{
    private const int LongestPeriod = 366;

    public static void MapMovers(this IEndpointRouteBuilder app) => app.MapGet("/api/movers", GetMovers);

    private static async Task<MoversView> GetMovers(int days, Movers movers, CancellationToken stop) =>
        days is < 1 or > LongestPeriod
            ? throw new InvalidInputException([new("days", $"Compare periods of 1 to {LongestPeriod} days.")])
            : await movers.Load(days, stop);
}
