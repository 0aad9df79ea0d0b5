using System.Globalization;
using TinRabbit.Core.Platforms;
using TinRabbit.Core.Words;

namespace TinRabbit.Core.Findings;

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
    public const string RemoveRepeats = "Remove repeats";

    public static string Write(string word) => $"Change to “{word}”";

    // Limits
    public static string OverLimit(string field, int used, int max, Unit unit, string platform) =>
        $"{field} has {Count(used, Name(unit))}; the limit is {Number(max)}. {platform} refuses the listing.";

    public static string OverItems(Field field, int items, int max, string platform) =>
        $"{field.Label} has {Number(items)} of at most {Number(max)}. Remove {Number(items - max)}: {platform} refuses the listing.";

    public static string RequiredEmpty(Field field, string platform) => $"{field.Label} is empty. {platform} requires it.";

    public static string Unused(Field field, int unused, int all, string unit) =>
        $"{Number(unused)} of {Count(all, unit)} unused in {field.Label}. More words bring more searches.";

    public static string WouldFit(IReadOnlyList<string> words, Field field, string term, double? volume) =>
        $"“{string.Join(' ', words)}” fits in {field.Label} and makes the listing eligible for “{term}”{(volume is { } searches ? $" ({Number(searches)} searches/mo)" : "")}.";

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

    public static string TitleRepeat(string word, int times, int free, Unit unit) =>
        $"“{word}” appears {(times == 2 ? "twice" : $"{Number(times)} times")}; no pick needs {(times == 2 ? "the second" : "all of them")}. Without it, {Count(free, Name(unit))} would be free.";

    public static string TitleNoFact(IReadOnlyList<string> facts) =>
        $"The title names none of the facts that shoppers filter by, such as “{facts[0]}”. They look for it before they open a listing.";

    public static string LeadLong(string lead, int words, double most) =>
        $"The lead, “{lead}”, has {Count(words, "word")}. Few people type more than {Number(most)}; choose a shorter lead.";

    public static string HomeMissing(IReadOnlyList<string> picks, Field field) =>
        $"{Named(picks)} {(picks.Count == 1 ? "is" : "are")} meant for {field.Label}, which lacks {(picks.Count == 1 ? "it" : "them")}. Add {(picks.Count == 1 ? "it" : "them")} there, or choose another home.";

    public static string BackendRepeat(IReadOnlyList<string> words, Field field, int free, Unit unit) =>
        $"{Named(words)} {(words.Count == 1 ? "is" : "are")} in {field.Label} or another searched field already."
        + (free > 0 ? $" Without {(words.Count == 1 ? "it" : "them")}, {Count(free, Name(unit))} would be free for new words." : "");

    public static string Promise(string phrase, bool isHealth) =>
        isHealth
            ? $"“{phrase}” promises an effect on health. The law asks for proof of it; say what the product is instead."
            : $"“{phrase}” promises more than anyone can keep. Say what is certain, to avoid returns.";

    public static string Unfinished(Field field, string last) => $"{field.Label} breaks off after “{last}”. End it with a whole sentence.";

    public static string RepeatedList(int picks) =>
        $"The same {Count(picks, "pick")} are listed in a sentence before. Once is enough for search, and twice reads as keyword stuffing.";

    public static string AttributeUnlisted(string attribute, double share, string platform) =>
        $"{share * 100:0} of the top 100 listings fill in {attribute}, which the profile of {platform} lacks. If the platform has it, add it to the profile.";

    /// <summary>The first three of some texts, in quotes: “a”, “b” and 2 more.</summary>
    private static string Named(IReadOnlyList<string> texts) =>
        texts.Count == 1 ? $"“{texts[0]}”"
        : texts.Count <= 3 ? $"{string.Join(", ", texts.SkipLast(1).Select(t => $"“{t}”"))} and “{texts[^1]}”"
        : $"{string.Join(", ", texts.Take(3).Select(t => $"“{t}”"))} and {Number(texts.Count - 3)} more";

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

    public static string OpeningNoCore(int sentences, bool isSearched) =>
        $"The first {(sentences == 1 ? "sentence contains" : $"{Number(sentences)} sentences contain")} no core pick. {(isSearched ? "Search reads the beginning first." : "Shoppers look there for the words that they typed.")}";

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
