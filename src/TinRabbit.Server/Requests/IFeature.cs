namespace TinRabbit.Server.Requests;

/// <summary>What a feature brings: its services and its endpoints. Each feature has one, which the server finds by itself.</summary>
internal interface IFeature
{
    /// <summary>Adds what the feature's endpoints use.</summary>
    void AddServices(IServiceCollection services) { }

    /// <summary>Maps the feature's endpoints.</summary>
    void Map(IEndpointRouteBuilder api);
}
