namespace TinRabbit.Core.Rivals;

/// <summary>A value of an attribute among rivals.</summary>
/// <param name="Attribute">The attribute's name.</param>
/// <param name="Value">The value, as most rivals write it.</param>
/// <param name="Held">Rivals that have it.</param>
/// <param name="Share">Their share of all rivals, 0–1.</param>
/// <param name="Differences">How the figures that the market shows differ; those that no rival shows are left out.</param>
public sealed record AttributeValue(string Attribute, string Value, int Held, double Share, IReadOnlyList<FigureDifference> Differences);
