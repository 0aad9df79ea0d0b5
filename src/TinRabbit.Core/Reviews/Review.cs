namespace TinRabbit.Core.Reviews;

/// <summary>What a buyer wrote.</summary>
/// <param name="Text">Its text.</param>
/// <param name="Stars">1–5; null where none were given.</param>
public sealed record Review(string Text, double? Stars = null);
