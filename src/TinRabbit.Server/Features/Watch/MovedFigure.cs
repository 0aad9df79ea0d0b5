namespace TinRabbit.Server.Features.Watch;

/// <summary>A figure in two periods; each is null where not every day is known.</summary>
public sealed record MovedFigure(long? Before, long? Now);
