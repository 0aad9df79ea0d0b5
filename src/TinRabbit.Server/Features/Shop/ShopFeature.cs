namespace TinRabbit.Server.Features.Shop;

/// <summary>The shop: its products, listings and changes.</summary>
internal sealed class ShopFeature : IFeature
{
    public void AddServices(IServiceCollection services)
    {
        services.AddScoped<BulkEdit>();
        services.AddSingleton<CachedWeighings>();
    }

    public void Map(IEndpointRouteBuilder api)
    {
        api.MapShop();
        api.MapProducts();
        api.MapListings();
        api.MapEditListings();
        api.MapChanges();
        api.MapTables();
    }
}
