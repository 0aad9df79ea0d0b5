namespace TinRabbit.Server.Features.Platforms;

/// <summary>The platforms.</summary>
internal sealed class PlatformsFeature : IFeature
{
    public void Map(IEndpointRouteBuilder api) => api.MapPlatforms();
}
