namespace TinRabbit.Core.Filling.Titles;

/// <summary>One suggested title.</summary>
/// <param name="Text">The title.</param>
/// <param name="Used">Room used, in the field's unit.</param>
/// <param name="Grip">The listing's with it, 0–100.</param>
/// <param name="Whole">Terms that it contains as an exact phrase, the most worth first.</param>
public sealed record Take(string Text, int Used, double Grip, IReadOnlyList<string> Whole);
