namespace TinRabbit.Server.Features.Dig;

/// <summary>A term and other names for it, combined with words that describe the product.</summary>
/// <param name="Heads">The head term first, then other names for it that are typed.</param>
/// <param name="Facets">The product's own words first in each.</param>
public sealed record GridView(IReadOnlyList<string> Heads, IReadOnlyList<GridFacet> Facets);
