namespace TinRabbit.Server.Features.Write;

/// <summary>Write: texts, fills, checks, takes, versions and sends.</summary>
internal sealed class WriteFeature : IFeature
{
    public void AddServices(IServiceCollection services) => services.AddScoped<ListingSender>();

    public void Map(IEndpointRouteBuilder api)
    {
        api.MapWrite();
        api.MapFill();
        api.MapCheck();
        api.MapPickWords();
        api.MapTakes();
        api.MapVersions();
        api.MapSend();
        api.MapPageFigures();
    }
}
