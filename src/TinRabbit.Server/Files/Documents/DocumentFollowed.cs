namespace TinRabbit.Server.Files.Documents;

/// <summary>A term that a listing is checked for in a market.</summary>
public sealed record DocumentFollowed(string Market, [Term] string Term);
