namespace TinRabbit.Server.Features.Dig;

/// <summary>The rows of one facet.</summary>
public sealed record GridFacet(Facet Facet, IReadOnlyList<GridRow> Rows);
