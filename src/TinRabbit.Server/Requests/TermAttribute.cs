namespace TinRabbit.Server.Requests;

/// <summary>The text is a search term: it has at most <see cref="Bounds.TermLength"/> characters and <see cref="Bounds.TermWords"/> words. On a list, each text is one.</summary>
[AttributeUsage(AttributeTargets.Parameter | AttributeTargets.Property)]
internal sealed class TermAttribute : Attribute;
