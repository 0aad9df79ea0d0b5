using TinRabbit.Server.Drops;

namespace TinRabbit.Server.Features.Drop;

/// <summary>The one door: whatever is pasted or dropped, on any screen.</summary>
internal sealed class DropFeature : IFeature
{
    public void AddServices(IServiceCollection services) => services.AddScoped<DropDesk>();

    public void Map(IEndpointRouteBuilder api) => api.MapDrops();
}
