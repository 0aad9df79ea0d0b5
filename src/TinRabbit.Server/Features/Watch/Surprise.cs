namespace TinRabbit.Server.Features.Watch;

/// <summary>A term on which the market and the profile disagree.</summary>
/// <param name="Found">What was observed; the profile predicts the other.</param>
/// <param name="Missing">Words that are missing by the profile.</param>
public sealed record Surprise(string Text, bool Found, IReadOnlyList<string> Missing);
