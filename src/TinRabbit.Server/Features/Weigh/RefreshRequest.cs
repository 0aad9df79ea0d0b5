namespace TinRabbit.Server.Features.Weigh;

/// <summary>Which rivals to look up again.</summary>
public sealed record RefreshRequest(string MarketId);
