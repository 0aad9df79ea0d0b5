namespace TinRabbit.Core.Pages;

/// <summary>A heading, a paragraph or an item of a list in a page's body.</summary>
/// <param name="Level">1–6 for a heading; 0 otherwise.</param>
/// <param name="Text">Its text, white space as one reads it.</param>
public sealed record RichBlock(int Level, string Text);
