namespace TinRabbit.Server.Features.Engine;

/// <summary>The engine for other programs.</summary>
internal sealed class EngineFeature : IFeature
{
    public void Map(IEndpointRouteBuilder api) => api.MapEngine();
}
