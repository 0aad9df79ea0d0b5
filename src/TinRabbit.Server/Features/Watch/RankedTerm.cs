namespace TinRabbit.Server.Features.Watch;

/// <summary>A term with its grip and its rank.</summary>
/// <param name="Grip">0–100.</param>
public sealed record RankedTerm(string Text, double Grip, int Rank);
