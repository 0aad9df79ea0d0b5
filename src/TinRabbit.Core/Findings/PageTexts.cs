namespace TinRabbit.Core.Findings;

/// <summary>Every sentence and button of the findings on a page.</summary>
internal static class PageTexts
{
    // Buttons
    public const string WriteOut = "Use the derived text";
    public const string AddBrand = "Add the brand";
    public const string SlugFromLead = "Make it from the lead";
    public const string LowerHeadings = "Change to level 2";
    public const string LinkToParent = "Link to the parent page";
    public const string RemoveLink = "Remove the link";
    public const string LeadIntoAlt = "Add the lead to the first";
    public const string RemoveOpening = "Remove “picture of”";

    // Page title
    public static string TitleEmpty(string derived) =>
        $"The page has no title of its own. Search results show “{derived}”; a title written for search brings more visitors.";

    public static string TitleShort(int characters, string suffix, double least) =>
        $"The page title has {Characters(characters)}{With(suffix)}; aim for at least {least:0}. There is room for another term.";

    public static string TitleLong(int characters, string suffix, double most) =>
        $"The page title has {Characters(characters)}{With(suffix)}; search results cut it off after about {most:0}.";

    public static string TitleWide(double pixels, string suffix, double most) =>
        $"The page title is {pixels:0} pixels wide{With(suffix)}; search results cut it off at {most:0}.";

    public static string LeadLate(string lead) => $"The page title doesn’t begin with the lead, “{lead}”. Early words count more.";

    public static string BrandMissing(string brand) => $"“{brand}” isn’t in the page title. Readers recognise a brand in search results.";

    public static string BrandFirst(string brand) =>
        $"The page title begins with “{brand}”. Put the brand at the end: early words count more.";

    // Meta description
    public static string MetaEmpty(string derived) =>
        derived.Length == 0
            ? "The page has no meta description. Search results then show any text of the page."
            : $"The page has no meta description of its own. Search results show “{derived}”.";

    public static string MetaShort(int characters, double least) =>
        $"The meta description has {Characters(characters)}; aim for at least {least:0}. It is what persuades people to click.";

    public static string MetaLong(int characters, double most) =>
        $"The meta description has {Characters(characters)}; search results cut it off after about {most:0}.";

    public static string MetaWide(double pixels, double most) =>
        $"The meta description is {pixels:0} pixels long; search results cut it off after about {most:0}.";

    public static string MetaLead(string lead) =>
        $"The meta description doesn’t contain the lead, “{lead}”. People look for their own words.";

    public const string MetaVerb =
        "No sentence of the meta description begins with a verb that invites, such as “discover” or “order”. An invitation brings more clicks.";

    // Slug
    public const string SlugForm =
        "A URL slug has lower-case letters and digits only, in words joined by hyphens. Other characters break links.";

    public static string SlugTaken(string page) => $"“{page}” has this URL slug already. Two pages can’t have the same address.";

    public static string SlugLead(string lead) =>
        $"The URL slug doesn’t contain the words of the lead, “{lead}”. Search reads the address too.";

    public static string SlugLong(int characters, double most) => $"The URL slug has {Characters(characters)}; keep it within {most:0}.";

    // Headings and body
    public static string HeadingLead(string lead) =>
        $"The heading has not all the words of the lead, “{lead}”. Readers expect what they searched for.";

    public static string SecondHeading(int count) =>
        $"The text has {(count == 1 ? "a heading" : $"{count} headings")} of level 1. The name is the page’s only top heading; use level 2 in the text.";

    public static string BodyShort(int words, double least) =>
        $"The text has {FindingTexts.Count(words, "word")}; aim for at least {least:0}. Pages with little text are seldom found.";

    public static string LeadInFirst(string lead) =>
        $"The first paragraph doesn’t contain the lead, “{lead}”. Say at once what the page is about.";

    public static string LeadFew(string lead, int uses, double least) =>
        $"The lead, “{lead}”, occurs {(uses == 0 ? "nowhere" : "once")} in the text; use it at least {least:0} times.";

    public const string CategoryText =
        "The category has no text. A few sentences on what is in it, and for whom, help readers to choose and are found by search.";

    public static string SameName(string name, IReadOnlyList<string> others) =>
        $"Another category is called “{name}” as well{Inside(others[0])}. Visitors can’t tell them apart in the menu: say in each name what is different.";

    private static string Inside(string parent) => parent.Length == 0 ? ", at the top" : $", inside “{parent}”";

    // Links
    public const string NoInnerLink = "The text links to no other page of the shop. Links help readers and search engines to find pages.";

    public const string NoOuterLink = "The text links to no other site. A link to a good source is welcome to readers.";

    public const string DeadLink = "This link leads to a page that was deleted or is a draft. Choose another page, or remove the link.";

    // Pictures
    public static string AltMissing(int picture) =>
        $"Picture {picture} has no alt text. Describe what one sees: some people can’t see it, and search reads it.";

    public static string AltLong(int picture, int characters, double most) =>
        $"The alt text of picture {picture} has {Characters(characters)}; keep it within {most:0}. Screen readers read it aloud.";

    public static string AltLead(string lead) =>
        $"No alt text contains the words of the lead, “{lead}”. One picture should show what the page is about.";

    public static string AltSame(int pictures) => $"{pictures} pictures have the same alt text. Say what is different in each.";

    public static string AltOpening(int picture) =>
        $"The alt text of picture {picture} begins with “picture of”. Screen readers say that already.";

    public static string AltStrung(int picture) =>
        $"The alt text of picture {picture} is a list of picks. Describe what one sees, in one phrase.";

    public static string AltAdvert(int picture, string said) =>
        $"The alt text of picture {picture} says “{said}”. Price, stock and praise change, or are opinion: say only what one sees.";

    public static string PictureSmall(int picture, int side, double least) =>
        $"Picture {picture} is {side:#,0} pixels on its longer side; aim for at least {least:#,0}. Shoppers zoom in, and picture search prefers larger ones.";

    public const string NoPicture = "The page has no picture. Shoppers look at pictures first, and picture search can’t find the page.";

    // Shop
    public static string SameLead(IReadOnlyList<string> pages) =>
        $"{(pages.Count == 1 ? $"“{pages[0]}” has" : $"{pages.Count} other pages, such as “{pages[0]}”, have")} the same lead. Pages of one shop compete with each other then.";

    public static string MenuLong(int characters, double most) =>
        $"The name in the menu has {Characters(characters)}; keep it within {most:0}. The page title can carry the long term.";

    private static string Characters(int count) => FindingTexts.Count(count, "character");

    private static string With(string suffix) => suffix.Length == 0 ? "" : $" with “{suffix.Trim()}”";
}
