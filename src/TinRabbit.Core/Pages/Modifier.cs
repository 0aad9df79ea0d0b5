namespace TinRabbit.Core.Pages;

/// <summary>A word that narrows the head noun of a lead: <c>cedar</c> for <c>bird house</c>.</summary>
/// <param name="Word">The word.</param>
/// <param name="Term">Modifier and head: what shoppers would type.</param>
/// <param name="IsUsed">Whether the page's texts have it.</param>
public sealed record Modifier(string Word, string Term, bool IsUsed);
