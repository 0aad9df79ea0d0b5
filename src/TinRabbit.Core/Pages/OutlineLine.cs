namespace TinRabbit.Core.Pages;

/// <summary>A line of a pasted outline.</summary>
/// <param name="Number">Its number in the text, from 1.</param>
/// <param name="Name">The name without its indentation.</param>
/// <param name="Inside">The index of the line that it is inside; −1 at the top.</param>
public sealed record OutlineLine(int Number, string Name, int Inside);
