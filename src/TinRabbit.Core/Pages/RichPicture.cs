namespace TinRabbit.Core.Pages;

/// <summary>A picture in a page's body.</summary>
/// <param name="Source">The address of its file.</param>
/// <param name="Alt">Its alt text; empty where it has none.</param>
public sealed record RichPicture(string Source, string Alt);
