using TinRabbit.Server.Drops;

namespace TinRabbit.Server.Features.Watch;

/// <summary>Watch: checks, days and the journal.</summary>
internal sealed class WatchFeature : IFeature
{
    public void AddServices(IServiceCollection services)
    {
        services.AddScoped<IDropKind, FiguresDrop>();
        services.AddScoped<IDropKind, FoundDrop>();
        services.AddSingleton<CheckService>();
        services.AddSingleton<DailyWatch>();
        services.AddScoped<ListingHistory>();
        services.AddScoped<Movers>();
        services.AddScoped<OwnTerms>();
        services.AddScoped<NoteEditor>();
        services.AddScoped<ProfileAdvice>();
        services.AddScoped<CheckImport>();
    }

    public void Map(IEndpointRouteBuilder api)
    {
        api.MapWatch();
        api.MapChecks();
        api.MapCheckFiles();
        api.MapHistory();
        api.MapNotes();
        api.MapMovers();
        api.MapOwnTerms();
        api.MapRules();
        api.MapSampleData();
    }
}
