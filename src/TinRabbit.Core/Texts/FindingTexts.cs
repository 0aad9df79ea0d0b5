using System.Globalization;
using TinRabbit.Core.Platforms;
using TinRabbit.Core.Words;

namespace TinRabbit.Core.Texts;

/// <summary>Every sentence and button of the findings, in one place to be read through. A sentence says what is wrong and why it matters.</summary>
internal static class FindingTexts
{
    // Buttons
    public const string Remove = "Remove";
    public const string RemovePhrase = "Remove this phrase";
    public const string Shorten = "Shorten to fit";
    public const string Add = "Add";
    public const string AddLead = "Add the lead";
    public const string MoveToFront = "Move to the front";
    public const string KeepFirst = "Keep the first";
    public const string KeepLast = "Keep the last";
    public const string LowerCase = "Use lower case";

    public static string Write(string word) => $"Change to “{word}”";

    // Limits
    public static string OverLimit(string field, int used, int max, Unit unit, string platform) =>
        $"{field} is {Count(used - max, Name(unit))} too long ({Number(used)} of {Number(max)}). {platform} refuses the listing.";

    public static string OverItems(Field field, int items, int max, string platform) =>
        $"{field.Label} has {Number(items)} of at most {Number(max)}. Remove {Number(items - max)}: {platform} refuses the listing.";

    public static string RequiredEmpty(Field field, string platform) => $"{field.Label} is empty. {platform} requires it.";

    public static string Unused(Field field, int unused, int all, string unit) =>
        $"{Number(unused)} of {Count(all, unit)} unused in {field.Label}. More words bring more searches.";

    public static string WouldFit(IReadOnlyList<string> words, Field field, string term, double? volume) =>
        $"“{string.Join(' ', words)}” fits in {field.Label} and makes the listing eligible for “{term}” ({Number(volume ?? 0)} searches/mo).";

    // Guards
    public static string Avoided(string term, string reason) =>
        $"“{term}” is on your avoid list{(reason.Length > 0 ? $" ({reason.TrimEnd('.')})" : "")}. Remove it before you publish.";

    public static string Banned(string phrase, string platform) => $"{platform} refuses listings that contain “{phrase}”.";

    public static string Claim(string word, Facet facet) =>
        $"“{word}” isn’t in this product’s facts ({Name(facet)}). Add it to the facts, or remove it to avoid returns.";

    public static string Shouting(int words, Field field) =>
        $"{Count(words, "word")} in all caps in {field.Label}. All caps read as shouting, and search ignores them.";

    // Title
    public static string LeadNotWhole(string lead) =>
        $"The lead, “{lead}”, isn’t in the title as an exact phrase. An exact phrase counts most there.";

    public static string LeadNotShown(string lead, int shows) =>
        $"The lead, “{lead}”, comes after the first {Count(shows, "character")}. Other places cut the title off there.";

    public static string WhatLate(string what, double words) =>
        $"“{what}”, what the product is, isn’t among the first {Count((int)words, "word")}. Shoppers decide there whether to read on.";

    public static string TitleRepeat(string word, int times) =>
        $"“{word}” appears {(times == 2 ? "twice" : $"{Number(times)} times")} in the title. Repeats don’t help, and they take up room.";

    // Tags
    public static string SameTag(string tag, Field field, int number) =>
        $"“{tag}” is also {field.Label} {number}. A repeated tag wastes a slot.";

    public static string TagReordered(string tag, string other) =>
        $"“{tag}” has the same words as “{other}”. Different words would bring more searches.";

    public static string ShopName(string shop) =>
        $"No tag contains “{shop}”. Shoppers who search for your shop’s name won’t find this listing.";

    // Description and spelling
    public static string DescriptionShort(int words, double least) =>
        $"{Count(words, "word")}; aim for at least {Number(least)}. Shoppers want details before they buy.";

    public static string BeginsWithTitle(Field field) =>
        $"{field.Label} begins with the title, word for word. Use the space for something new.";

    public const string ListOfPicks = "This reads as a keyword list. Write a sentence that a shopper wants to read.";

    public static string OpeningNoCore(int sentences) =>
        $"The first {(sentences == 1 ? "sentence contains" : $"{Number(sentences)} sentences contain")} no core pick. Search reads the beginning first.";

    public static string Stuffed(string term, int times, int words, double most) =>
        $"“{term}” appears {Number(times)} times in {Count(words, "word")}. More than {Number(most)} per 100 words reads as keyword stuffing.";

    public static string MixedSpelling(string odd, string oddRegion, string usual, string usualRegion) =>
        $"“{odd}” is {oddRegion} spelling, but “{usual}” is {usualRegion}. Use one spelling throughout.";

    // Category and attributes
    public static string CategoryUnknown(IEnumerable<string> path, string platform) =>
        $"{platform} has no category {string.Join(" › ", path)}.";

    public static string CategoryDeeper(string category, IEnumerable<string> under, IReadOnlyList<string> opens) =>
        $"{category} has more specific categories: {string.Join(", ", under)}."
        + (opens.Count > 0 ? $" They add {string.Join(", ", opens)}, which shoppers filter by." : " Shoppers filter by category.");

    public static string AttributeEmpty(string attribute, double share) =>
        $"{attribute} is empty. {share * 100:0} of the top 100 listings fill this in, and shoppers filter by it.";

    /// <summary>A number of things: “1 word”, “1,200 words”.</summary>
    public static string Count(int count, string one) => $"{Number(count)} {(count == 1 ? one : one + "s")}";

    /// <summary>The name of one unit.</summary>
    public static string Name(Unit unit) => unit.ToString().ToLowerInvariant().TrimEnd('s');

    /// <summary>The name of a facet, as in "size".</summary>
    private static string Name(Facet facet) => facet.ToString().ToLowerInvariant();

    private static string Number(double value) => value.ToString("N0", CultureInfo.InvariantCulture);
}
