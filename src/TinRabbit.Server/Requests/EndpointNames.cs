using System.Reflection;

namespace TinRabbit.Server.Requests;

/// <summary>Describes endpoints in the OpenAPI document by what answers them.</summary>
internal static class EndpointNames
{
    /// <summary>Names each endpoint after its method, tags it with its feature, and says that it may answer with a problem.</summary>
    public static RouteGroupBuilder NameEndpoints(this RouteGroupBuilder group)
    {
        ((IEndpointConventionBuilder)group).Add(endpoint =>
        {
            if (endpoint.Metadata.OfType<MethodInfo>().FirstOrDefault() is not { DeclaringType.Namespace: { } place } method)
                return;
            endpoint.Metadata.Add(new EndpointNameMetadata(method.Name));
            if (place.Split('.') is [.., "Features", var feature])
                endpoint.Metadata.Add(new TagsAttribute(feature));
        });
        return group.ProducesValidationProblem().ProducesProblem(StatusCodes.Status404NotFound);
    }
}
