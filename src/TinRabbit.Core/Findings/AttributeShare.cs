namespace TinRabbit.Core.Findings;

/// <summary>The share of rivals that fill an attribute.</summary>
public sealed record AttributeShare(string Name, double Share);
