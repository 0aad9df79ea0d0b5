namespace TinRabbit.Server.Files.Html.Reading;

/// <summary>A picture of a page.</summary>
/// <param name="Alt">Its alt text; empty where it has none.</param>
/// <param name="Address">Its address as the page names it; nothing is fetched from there. Null where it has none.</param>
/// <param name="Picture">Its name among the pictures of the shop, where it came with the page; null where it did not.</param>
public sealed record ReadImage(string Alt, string? Address = null, string? Picture = null);
