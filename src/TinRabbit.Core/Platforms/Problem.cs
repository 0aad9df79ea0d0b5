namespace TinRabbit.Core.Platforms;

/// <summary>Something wrong in a document, and where.</summary>
/// <param name="Path">The key, as <c>fields[0].limit.max</c>.</param>
/// <param name="Message">What is wrong, as a sentence.</param>
public sealed record Problem(string Path, string Message);
