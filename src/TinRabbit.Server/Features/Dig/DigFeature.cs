using TinRabbit.Server.Drops;

namespace TinRabbit.Server.Features.Dig;

/// <summary>Dig: the shelf, terms, imports and measuring.</summary>
internal sealed class DigFeature : IFeature
{
    public void AddServices(IServiceCollection services)
    {
        services.AddScoped<IDropKind, ResultsDrop>();
        services.AddScoped<IDropKind, SuggestionsDrop>();
        services.AddScoped<IDropKind, TermsDrop>();
        services.AddSingleton<MeasuringService>();
        services.AddScoped<LookUps>();
        services.AddScoped<RelatedTerms>();
        services.AddScoped<TermDetails>();
        services.AddScoped<TermDig>();
        services.AddScoped<TermGrid>();
    }

    public void Map(IEndpointRouteBuilder api)
    {
        api.MapDig();
        api.MapShelf();
        api.MapMeasuring();
        api.MapImport();
        api.MapTerm();
        api.MapWords();
        api.MapLikeness();
        api.MapDrawings();
    }
}
