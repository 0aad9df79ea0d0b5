namespace TinRabbit.Server.Picks;

/// <summary>A term that the shop avoids.</summary>
/// <param name="Reason">Why; empty where nobody said.</param>
/// <param name="Product">For which product it was avoided.</param>
public sealed record Avoided(string Text, string Reason, string Product);
