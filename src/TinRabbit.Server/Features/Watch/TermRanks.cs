namespace TinRabbit.Server.Features.Watch;

/// <summary>The rank of one term by day.</summary>
public sealed record TermRanks(int Id, string Text, IReadOnlyList<int?> Ranks);
