namespace TinRabbit.Server.Files.Documents;

/// <summary>A term that was dug for a product.</summary>
/// <param name="Parent">The place, from 0, of the dig that led to it; null where it was typed.</param>
public sealed record DocumentDig(string Market, [Term] string Term, DateTime At, int? Parent = null);
