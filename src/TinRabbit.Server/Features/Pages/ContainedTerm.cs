namespace TinRabbit.Server.Features.Pages;

/// <summary>A term that a text contains.</summary>
public sealed record ContainedTerm(string Text, double? Volume);
