namespace TinRabbit.Server.Picks;

/// <summary>A draft of a listing in a market; without fields, the saved texts.</summary>
public sealed record DraftOf(string MarketId, JsonElement? Fields);
