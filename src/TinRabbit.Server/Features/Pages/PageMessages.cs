namespace TinRabbit.Server.Features.Pages;

/// <summary>Changes to pages, the web shop and its pictures, as the toast and History name them.</summary>
internal static class PageMessages
{
    public static string AddedPage(string name) => $"Added the page “{name}”";

    public static string AddedPages(int count) => $"Added {count:#,0} {(count == 1 ? "page" : "pages")}";

    public static string MovedPage(string name) => $"Moved the page “{name}”";

    public static string ChangedPage(string name) => $"Changed the page “{name}”";

    public static string DeletedPages(int count) => $"Deleted {count:#,0} pages";

    public const string ChangedSite = "Changed the settings of the web shop";

    public static string ImportedThings(int count, string source) =>
        $"Imported {count:#,0} {(count == 1 ? "part" : "parts")} of “{source}”";

    public static string FilledAltTexts(int count) => $"Filled {count:#,0} alt {(count == 1 ? "text" : "texts")}";

    public static string ChangedPictures(int count) => $"Changed {count:#,0} {(count == 1 ? "picture" : "pictures")}";

    public static string SetLead(string term, string page) => $"Set “{term}” as lead of “{page}”";

    public static string LockedAltText(int picture, string product, bool isLocked) =>
        $"{(isLocked ? "Locked" : "Unlocked")} the alt text of picture {picture} of “{product}”";
}
