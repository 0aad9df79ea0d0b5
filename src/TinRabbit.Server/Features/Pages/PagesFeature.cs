using TinRabbit.Server.Drops;

namespace TinRabbit.Server.Features.Pages;

/// <summary>The pages of the seller's own site.</summary>
internal sealed class PagesFeature : IFeature
{
    public void AddServices(IServiceCollection services)
    {
        services.AddScoped<IDropKind, OwnListingsDrop>();
        services.AddScoped<IDropKind, WebPagesDrop>();
        services.AddScoped<IDropKind, WholeShopDrop>();
        services.AddScoped<PageEditor>();
    }

    public void Map(IEndpointRouteBuilder api)
    {
        api.MapSite();
        api.MapPages();
        api.MapLeads();
        api.MapPictures();
        api.MapFiles();
    }
}
