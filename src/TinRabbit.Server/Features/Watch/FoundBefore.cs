namespace TinRabbit.Server.Features.Watch;

/// <summary>What an earlier check found.</summary>
public sealed record FoundBefore(DateTime At, bool Found, int? Rank);
