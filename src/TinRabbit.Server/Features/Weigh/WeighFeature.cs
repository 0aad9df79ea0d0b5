using TinRabbit.Server.Drops;

namespace TinRabbit.Server.Features.Weigh;

/// <summary>Weigh: scores, moves, rivals and buyers.</summary>
internal sealed class WeighFeature : IFeature
{
    public void AddServices(IServiceCollection services)
    {
        services.AddScoped<IDropKind, ListingDrop>();
        services.AddScoped<IDropKind, ReviewsDrop>();
        services.AddScoped<IDropKind, RivalsDrop>();
        services.AddScoped<ProductComparison>();
        services.AddScoped<ReviewEditor>();
        services.AddSingleton<LastWeighings>();
    }

    public void Map(IEndpointRouteBuilder api)
    {
        api.MapWeigh();
        api.MapMoves();
        api.MapPlaces();
        api.MapRivals();
        api.MapRivalRanking();
        api.MapRivalTexts();
        api.MapTop();
        api.MapReviews();
        api.MapProductPlatforms();
    }
}
