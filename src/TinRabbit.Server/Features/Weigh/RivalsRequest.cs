namespace TinRabbit.Server.Features.Weigh;

/// <summary>Results to save as rivals, by the market's own names.</summary>
public sealed record RivalsRequest(string MarketId, [MaxLength(Bounds.Rivals), EachMaxLength(Bounds.NameLength)] IReadOnlyList<string> Ids);
