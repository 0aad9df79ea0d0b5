namespace TinRabbit.Server.Features.Next;

/// <summary>The next useful thing to do for a listing.</summary>
internal sealed class NextFeature : IFeature
{
    public void AddServices(IServiceCollection services) => services.AddScoped<NextFinder>();

    public void Map(IEndpointRouteBuilder api) => api.MapNext();
}
