namespace TinRabbit.Server.Files.Documents;

/// <summary>A listing's text that went live.</summary>
/// <param name="At">Since when it is live.</param>
/// <param name="NoticedAt">When the shop was told of it.</param>
/// <param name="ByHand">Whether the seller said so, and the program did not send it.</param>
public sealed record DocumentSent(string Market, DateTime At, DateTime NoticedAt, bool ByHand, JsonObject Fields);
