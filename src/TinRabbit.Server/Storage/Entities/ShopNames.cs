namespace TinRabbit.Server.Storage;

/// <summary>What the shop is called, and the currency of its own platforms.</summary>
public sealed record ShopNames(string Name, string Currency);
