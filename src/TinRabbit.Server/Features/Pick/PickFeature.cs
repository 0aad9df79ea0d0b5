namespace TinRabbit.Server.Features.Pick;

/// <summary>Pick: the picks of a product and its facts.</summary>
internal sealed class PickFeature : IFeature
{
    public void AddServices(IServiceCollection services) => services.AddScoped<PickEditor>();

    public void Map(IEndpointRouteBuilder api) => api.MapPick();
}
