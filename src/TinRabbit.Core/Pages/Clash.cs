namespace TinRabbit.Core.Pages;

/// <summary>A term for which pages of the same shop compete.</summary>
/// <param name="Key">The term's key.</param>
/// <param name="Text">As it is typed.</param>
/// <param name="Volume">Searches a month; null when unknown.</param>
/// <param name="IsLead">Whether it is the lead of each; otherwise each holds it strongly.</param>
/// <param name="Keeper">The page that should keep it.</param>
/// <param name="Others">The other pages, the firmest first.</param>
public sealed record Clash(string Key, string Text, double? Volume, bool IsLead, int Keeper, IReadOnlyList<int> Others);
