namespace TinRabbit.Server.Features.Dig;

/// <summary>The words of a term, with words alike to each.</summary>
/// <param name="Word">The word, or the whole term.</param>
public sealed record AlikeView(string Word, IReadOnlyList<AlikeTerm> Alike);
