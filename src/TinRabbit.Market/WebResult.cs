namespace TinRabbit.Market;

/// <summary>A page among the results of a web search.</summary>
/// <param name="Site">The name of its site.</param>
/// <param name="Title">Its page title.</param>
/// <param name="Description">Its meta description.</param>
/// <param name="Kind">What kind of page it is.</param>
public sealed record WebResult(string Site, string Title, string Description, WebResultKind Kind);
