namespace TinRabbit.Server.Features.Pages;

/// <summary>A field that an import would change.</summary>
public sealed record ItemChange(string Label, string Before, string After);
