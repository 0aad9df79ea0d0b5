using System.Globalization;

namespace TinRabbit.Core.Findings;

/// <summary>What is right where a check found nothing, and what the check looks at.</summary>
internal static class PassedTexts
{
    private static readonly Dictionary<string, (string Text, Func<Func<string, double>, string> How)> ById = new(StringComparer.Ordinal)
    {
        ["required-empty"] = ("Every required field is filled in", _ => "Looks at the fields that the platform requires."),
        ["over-limit"] = (
            "Every field is within its limit",
            _ => "Counts each field in the platform’s own unit: characters, bytes or words."
        ),
        ["over-items"] = ("No list has too many items", _ => "Counts the tags, bullet points and other items."),
        ["unused"] = ("Title, tags and backend use their room", t => $"At most {Percent(t("unusedShare"))} of the room may be unused."),
        ["would-fit"] = ("No missing pick would still fit", _ => "Tries the words of each missing pick in the backend keywords."),
        ["home-missing"] = ("Each pick is in the field it is meant for", _ => "Compares the home of each pick with that field’s text."),
        ["avoided"] = ("Nothing on your avoid list is used", _ => "Looks for each avoided term in every field, in any form."),
        ["banned"] = ("No phrase that the platform refuses", _ => "Looks for the platform’s banned phrases in every field, in any form."),
        ["claim"] = (
            "Everything claimed is in the facts",
            _ => "Compares materials, colours, sizes, people, occasions and properties with the product’s facts."
        ),
        ["promise"] = ("No promise of an effect or of health", _ => "Looks for words such as “cures” and “guaranteed” in every field."),
        ["shouting"] = (
            "No shouting",
            t => $"Looks for {t("shoutingWords"):0} or more words of {t("shoutingLetters"):0} or more capital letters."
        ),
        ["lead-long"] = ("The lead is short enough to be typed", t => $"A lead has at most {t("leadWordsMax"):0} words."),
        ["lead-not-whole"] = ("The title contains the lead exactly", _ => "Looks for the lead as an exact phrase in the title."),
        ["lead-not-shown"] = (
            "The lead is visible where the title is cut off",
            _ => "Looks at the part of the title that other places show."
        ),
        ["what-late"] = ("The title says early what the product is", t => $"Looks among the first {t("whatWithinWords"):0} words."),
        ["title-repeat"] = (
            "No word of the title is repeated for nothing",
            _ => "Takes each repeat out and sees whether a pick would have a lower grade."
        ),
        ["title-no-fact"] = (
            "The title names a fact that shoppers filter by",
            _ => "Compares the facts behind the platform’s attributes with the title."
        ),
        ["same-tag"] = ("No tag is there twice", _ => "Compares the tags, capitals and accents aside."),
        ["tag-reordered"] = ("No tag only reorders another", _ => "Compares the words of the tags."),
        ["shop-name"] = ("A tag has the shop’s name", _ => "Looks for the shop’s name in the tags."),
        ["backend-repeat"] = (
            "The backend repeats no word",
            _ => "Compares each backend word with the backend itself and with other searched fields."
        ),
        ["description-short"] = ("The description is long enough", t => $"A description has at least {t("descriptionMinWords"):0} words."),
        ["description-unfinished"] = ("The description ends with a whole sentence", _ => "Looks at its last characters and its last word."),
        ["begins-with-title"] = ("The description doesn’t begin with the title", _ => "Compares the first words of both."),
        ["list-of-picks"] = (
            "No sentence is only a list of picks",
            t =>
                $"A sentence of {t("listSentenceWords"):0} words or more may have less than {Percent(t("listSentenceShare"))} of picks set apart by commas."
        ),
        ["repeated-list"] = ("No list of picks is repeated", _ => "Compares the sentences that list picks."),
        ["opening-no-core"] = ("The first sentences contain a core pick", t => $"Looks at the first {t("openingSentences"):0} sentences."),
        ["stuffed"] = ("No term is stuffed", t => $"A term may occur {t("termPerHundredWords"):0} times in 100 words."),
        ["mixed-spelling"] = ("One spelling throughout", _ => "Looks for British and American spellings of the same words."),
        ["category-unknown"] = ("The platform has this category", _ => "Compares the category with the platform’s tree."),
        ["category-deeper"] = ("The category is as specific as it goes", _ => "Looks for categories below the chosen one."),
        ["attribute-empty"] = (
            "The attributes that rivals fill are filled",
            t => $"Looks at attributes that {Percent(t("rivalsFillShare"))} of the first listings fill."
        ),
        ["attribute-unlisted"] = (
            "The platform’s profile has the attributes that rivals fill",
            _ => "Compares rivals’ attributes with the profile."
        ),
        ["page-title-empty"] = ("The page has a title of its own", _ => "Looks whether the page title is written or derived."),
        ["page-title-short"] = (
            "The page title is long enough",
            t => $"At least {t("pageTitleMin"):0} characters, with what the site adds."
        ),
        ["page-title-long"] = (
            "The page title is short enough",
            t => $"At most {t("pageTitleMax"):0} characters, with what the site adds."
        ),
        ["page-title-wide"] = ("Search results show the whole page title", _ => "Adds up the widths of its letters."),
        ["page-title-lead-late"] = ("The page title begins with the lead", _ => "Compares its first words with the lead."),
        ["page-title-brand"] = ("The page title has the brand", _ => "Looks for the brand in the title, with what the site adds."),
        ["page-title-brand-first"] = ("The brand doesn’t come first", _ => "Looks at the first words of the page title."),
        ["meta-empty"] = ("The page has a meta description of its own", _ => "Looks whether it is written or derived."),
        ["meta-short"] = ("The meta description is long enough", t => $"At least {t("metaMin"):0} characters."),
        ["meta-long"] = ("The meta description is short enough", t => $"At most {t("metaMax"):0} characters."),
        ["meta-wide"] = ("Search results show the whole meta description", _ => "Adds up the widths of its letters."),
        ["meta-lead"] = ("The meta description contains the lead", _ => "Looks for the lead’s words."),
        ["meta-verb"] = ("The meta description invites", _ => "Looks for a sentence that begins with a verb such as “discover”."),
        ["slug-taken"] = ("No other page has this address", _ => "Compares the URL slugs of the shop."),
        ["slug-long"] = ("The URL slug is short enough", t => $"At most {t("slugMax"):0} characters."),
        ["slug-form"] = ("The URL slug has a proper form", _ => "Lower-case letters, digits and hyphens."),
        ["slug-lead"] = ("The URL slug contains the lead", _ => "Compares its words with the lead’s."),
        ["heading-lead"] = ("The heading has the words of the lead", _ => "Looks for the lead’s words in the heading."),
        ["second-heading"] = ("There is one top heading", _ => "Counts headings of level 1 in the text."),
        ["body-short"] = ("The text is long enough", t => $"At least {t("bodyMinWords"):0} words."),
        ["lead-not-first"] = ("The first paragraph contains the lead", _ => "Looks for the lead in the first block that is no heading."),
        ["lead-few"] = ("The text uses the lead often enough", t => $"At least {t("leadMinUses"):0} times."),
        ["no-inner-link"] = ("The text links within the shop", _ => "Counts links to other pages of the shop."),
        ["no-outer-link"] = ("The text links to another site", _ => "Counts links to other sites."),
        ["dead-link"] = ("Every link leads to a published page", _ => "Follows the links within the shop."),
        ["no-picture"] = ("The page has a picture", _ => "Counts the product’s pictures and those in the text."),
        ["alt-missing"] = ("Every picture has an alt text", _ => "Looks at each picture."),
        ["alt-long"] = ("No alt text is too long", t => $"At most {t("altMax"):0} characters."),
        ["alt-opening"] = ("No alt text begins with “picture of”", _ => "Looks at the first words."),
        ["alt-advert"] = ("No alt text has a price, stock or praise", _ => "Looks for sums of money and for words of stock and praise."),
        ["picture-small"] = ("The pictures are large enough", least => $"Compares the longer side with {least("pictureMin"):0} pixels."),
        ["category-text"] = ("The category has a text", _ => "Looks whether anything is written."),
        ["same-name"] = ("No other category has this name", _ => "Compares the names of all categories, in any case."),
        ["alt-strung"] = ("No alt text is a list of picks", _ => "Counts picks set apart by commas."),
        ["alt-same"] = ("The alt texts differ", _ => "Compares them with each other."),
        ["alt-lead"] = ("An alt text has the words of the lead", _ => "Looks for the lead’s words."),
        ["same-lead"] = ("No other page has this lead", _ => "Compares the leads of the shop’s pages."),
        ["menu-long"] = ("The name in the menu is short enough", t => $"At most {t("menuNameMax"):0} characters."),
    };

    /// <summary>The texts of a check.</summary>
    public static (string Text, Func<Func<string, double>, string> How) Of(string id) => ById[id];

    private static string Percent(double share) => (share * 100).ToString("0", CultureInfo.InvariantCulture) + "%";
}
