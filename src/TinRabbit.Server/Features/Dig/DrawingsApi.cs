using TinRabbit.Market.StandIn;

namespace TinRabbit.Server.Features.Dig;

/// <summary>The pictures of the stand-in market's listings.</summary>
internal static class DrawingsApi
{
    public static void MapDrawings(this IEndpointRouteBuilder app) => app.MapGet("/api/drawings", Draw);

    private static Results<FileContentHttpResult, NotFound> Draw(
        [MaxLength(Bounds.ResultName)] string title,
        IMarket market,
        HttpResponse response
    )
    {
        if (!market.IsSimulated)
            return TypedResults.NotFound();
        response.Headers.CacheControl = "private, max-age=86400";
        return TypedResults.File(Encoding.UTF8.GetBytes(Drawings.Of(title)), "image/svg+xml");
    }
}
