namespace TinRabbit.Server.Shelf;

/// <summary>A known term with its numbers.</summary>
/// <param name="Volume">Searches/mo; null when unknown.</param>
/// <param name="Competition">Competing listings; null when unknown.</param>
/// <param name="Band">Competition against the market's shelf; null when unknown.</param>
public sealed record ReadTerm(string Text, double? Volume, double? Competition, Band? Band);
