namespace TinRabbit.Core.Pages;

/// <summary>A term that a page holds.</summary>
/// <param name="Key">The term's key.</param>
/// <param name="Text">As it is typed.</param>
/// <param name="Volume">Searches a month; null when unknown.</param>
/// <param name="Grip">How firmly, 0–1.</param>
public sealed record HeldTerm(string Key, string Text, double? Volume, double Grip);
