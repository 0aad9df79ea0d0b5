using TinRabbit.Core.Calibrating;
using TinRabbit.Core.Comparing;
using TinRabbit.Core.Measures;
using TinRabbit.Core.Words;
using TinRabbit.Server.Listings;
using TinRabbit.Server.Watch;

namespace TinRabbit.Server;

/// <summary>What the server says about the seller's work, in one place to be read through: changes to undo, ideas, listings that no longer fit.</summary>
internal static class Messages
{
    // Changes, as the toast and the history show them
    public const string ReorderedPicks = "Changed the order of the picks";

    public static string ChangedFacts(IReadOnlyList<string> fits) =>
        fits.Count == 0 ? "Changed the facts" : $"Changed the facts, and the fit of {Named(fits)}";

    public static string Picked(IReadOnlyList<string> texts) => $"Picked {Named(texts)}";

    public static string RemovedPicks(IReadOnlyList<string> texts) =>
        $"Removed {(texts.Count == 1 ? $"“{texts[0]}” from the picks" : $"{texts.Count} picks")}";

    public static string MarkedAsAvoid(IReadOnlyList<string> texts) => $"Marked {Named(texts)} as avoid";

    public static string Moved(IReadOnlyList<string> texts, Home home) =>
        home == Home.Anywhere ? $"Cleared the home of {Named(texts)}" : $"Moved {Named(texts)} to {Name(home)}";

    public static string ChangedFit(IReadOnlyList<string> texts, Fit fit) =>
        $"Changed the fit of {Named(texts)} to {fit.ToString().ToLowerInvariant()}";

    public static string ChangedNote(IReadOnlyList<string> texts) => $"Changed the note on {Named(texts)}";

    public static string Renamed(string kind, string before, string now) =>
        before.Length == 0 ? $"Named the {kind} “{now}”"
        : now.Length == 0 ? $"Removed the name “{before}” of the {kind}"
        : $"Renamed {kind} “{before}” to “{now}”";

    public static string Deleted(string kind, string name) => $"Deleted {kind}{(name.Length > 0 ? $" “{name}”" : "")}";

    public static string Duplicated(string kind, string name) => $"Duplicated {kind} “{name}”";

    public static string AddedListing(string product, string platform) => $"Added “{product}” to {platform}";

    public static string DeletedListing(string product, string platform) => $"Deleted the listing of “{product}” on {platform}";

    public static string DeletedTerms(IReadOnlyList<string> texts) => $"Deleted {Named(texts)} from the shelf";

    public static string AddedPage(string name) => $"Added the page “{name}”";

    public static string AddedPages(int count) => $"Added {count:#,0} {(count == 1 ? "page" : "pages")}";

    public static string MovedPage(string name) => $"Moved the page “{name}”";

    public static string ChangedPage(string name) => $"Changed the page “{name}”";

    public static string DeletedPages(int count) => $"Deleted {count:#,0} pages";

    public static string SetOwnWord(string word, Facet? facet) =>
        facet is null
            ? $"“{word}” is no claim in this shop"
            : $"“{word}” is a claim about {(facet == Facet.Property ? "properties" : facet.ToString()!.ToLowerInvariant())}";

    public static string ForgotOwnWord(string word) => $"Removed “{word}” from the shop’s own words";

    public static string ChoseSupply(Supply supply) =>
        supply == Supply.ExactTitles
            ? "Headroom now goes by exact-title matches in this market"
            : "Headroom now goes by competing listings in this market";

    public const string ChangedSite = "Changed the settings of the web shop";

    public static string ImportedThings(int count, string source) =>
        $"Imported {count:#,0} {(count == 1 ? "thing" : "things")} from “{source}”";

    public static string FilledAltTexts(int count) => $"Filled {count:#,0} alt {(count == 1 ? "text" : "texts")}";

    public static string ChangedPictures(int count) => $"Changed {count:#,0} {(count == 1 ? "picture" : "pictures")}";

    public static string SetLead(string term, string page) => $"Set “{term}” as lead of “{page}”";

    public static string ChangedShop => "Changed the shop’s settings";

    public static string Imported(int terms, string source) => $"Imported {terms:#,0} {(terms == 1 ? "term" : "terms")} from “{source}”";

    public static string RemovedImport(string source) => $"Import “{source}”";

    // Rivals and reviews
    public static string AddedRivals(IReadOnlyList<string> shops) =>
        $"Saved {(shops.Count == 1 ? $"“{shops[0]}” as a rival" : $"{shops.Count:#,0} rivals")}";

    public static string RemovedRival(string shop) => $"Removed the rival “{shop}”";

    public static string AddedReviews(int count) => $"Added {count:#,0} {(count == 1 ? "review" : "reviews")}";

    public static string RemovedReviews(int count) => $"Removed {count:#,0} {(count == 1 ? "review" : "reviews")}";

    // Watch
    public static string SentChange(bool isFirst, bool byHand, IReadOnlyList<string> fields) =>
        isFirst
            ? byHand
                ? "First published"
                : "First sent"
            : fields.Count > 3
                ? $"Changed {fields.Count} fields"
                : $"Changed {string.Join(", ", fields.Select(f => f.ToLowerInvariant()))}";

    public static string AddedNote(string text) => $"Added the note “{text}”";

    public static string ChangedChangeNote(string text) => $"Changed the note “{text}”";

    public static string AddedCheck(int terms) => $"Added a check of {terms:#,0} {(terms == 1 ? "term" : "terms")}";

    public static string AddedChecks(int terms, int days) =>
        days == 1 ? AddedCheck(terms) : $"Added checks of {terms:#,0} {(terms == 1 ? "term" : "terms")} on {days:#,0} days";

    public static string AddedFigures(int days) => $"Added figures of {days:#,0} {(days == 1 ? "day" : "days")}";

    public static string Unfollowed(IReadOnlyList<string> terms) => $"Stopped checking {Named(terms)}";

    /// <summary>The verdict of a comparison.</summary>
    /// <param name="measure">What was counted.</param>
    /// <param name="found">The comparison.</param>
    /// <param name="daysAfter">The days after the change that are known.</param>
    /// <param name="isCut">Whether the next change ended them, so that there will not be more.</param>
    /// <param name="isCutBefore">Whether the change before it left less than a week.</param>
    public static string Effect(
        Measure measure,
        BeforeAfter found,
        (double Before, double After) daily,
        int daysAfter,
        bool isCut,
        bool isCutBefore
    )
    {
        var name = measure.ToString().ToLowerInvariant();
        var left = BeforeAfter.LongestWindow - found.Days;
        var size = found.Difference is null
            ? $"from {Daily(daily.Before)} to {Daily(daily.After)} a day"
            : $"by {Size(found.Difference)} ({Range(found)})";
        var soFar = found.Difference is null ? "" : $" ({Range(found)} so far)";
        return found switch
        {
            { Days: 0 } or { Verdict: Verdict.Unclear } when isCut => "Can’t tell: the next change came too soon",
            { Days: 0 } when isCutBefore => "Can’t tell: the change before it was less than a week earlier",
            { Days: 0, DaysNeeded: { } days } => $"Can’t tell yet: about {More(days)}",
            { Days: 0 } when daysAfter == 0 => $"Can’t tell: no {name} are known after the change",
            { Days: 0 } => $"Can’t tell: less than a week of {name} is known before the change",
            { Verdict: Verdict.Up } => $"{Named(measure)} rose {size}",
            { Verdict: Verdict.Down } => $"{Named(measure)} fell {size}",
            { DaysNeeded: { } days } when days <= left => $"Can’t tell yet: about {More(days)}{soFar}",
            _ when left > 0 => $"Can’t tell yet: look again in {Days(left)}{soFar}",
            _ when found.Difference is null => $"No clear difference: {Daily(daily.Before)} and then {Daily(daily.After)} a day",
            _ => $"No clear difference ({Range(found)})",
        };
    }

    public static string TooFew(Measure measure) => $"Too few to tell: less than one a day ({measure.ToString().ToLowerInvariant()})";

    /// <summary>A change of a profile that would explain what was found.</summary>
    public static string OfferedChange(ProfileChange change, Core.Platforms.Platform platform)
    {
        var field = platform.Find(change.Name)?.Label ?? change.Name;
        return change.Kind switch
        {
            ProfileChangeKind.Fold =>
                $"{platform.Name} seems {(change.On ? "to treat" : "not to treat")} {FoldName(change.Name)} as the same word",
            ProfileChangeKind.Field => $"{platform.Name} seems {(change.On ? "to search" : "not to search")} {field}",
            ProfileChangeKind.IndexedFirst => $"{platform.Name} seems to search all of {field}, not only its beginning",
            _ => change.On
                ? $"{platform.Name} seems to find listings whose words are in different fields"
                : $"{platform.Name} seems to find only listings that have all words in one field",
        };
    }

    public static string OfferedWeights(string platform) => $"Weights that order the results of {platform} better";

    private static string FoldName(string fold) =>
        fold switch
        {
            "diacritics" => "letters with and without accents",
            "possessive" => "possessives (women’s, womens)",
            "plural" => "singular and plural",
            "compound" => "one word or two (birdhouse, bird house)",
            _ => "British and American spelling",
        };

    /// <summary>Why terms are not measured in the background, where the source is not to blame.</summary>
    public const string MeasuringFailed = "Looking up terms failed; it is tried again in five minutes.";

    /// <summary>What changes of one kind did on average.</summary>
    public static string Pooled(PooledDifference pooled, Measure measure) =>
        pooled.Difference is null
            ? $"Not enough data: {pooled.Count} of at least {PooledDifference.Least} changes that can be compared"
            : pooled.Verdict switch
            {
                Verdict.Up => $"{Named(measure)} rose by {Size(pooled.Difference)} on average ({Range(pooled.Low, pooled.High)})",
                Verdict.Down => $"{Named(measure)} fell by {Size(pooled.Difference)} on average ({Range(pooled.Low, pooled.High)})",
                _ => $"No clear difference on average ({Range(pooled.Low, pooled.High)})",
            };

    private static string Named(Measure measure) => measure.ToString();

    private static string Days(int days) => days == 1 ? "1 day" : $"{days:#,0} days";

    private static string More(int days) => days == 1 ? "1 more day" : $"{days:#,0} more days";

    private static string Daily(double count) => count < 10 ? $"{count:0.#}" : $"{count:#,0}";

    private static string Size(double? percent) => $"{Math.Abs(percent ?? 0):#,0}%";

    private static string Range(BeforeAfter found) => Range(found.Low, found.High);

    private static string Range(double? low, double? high) => $"between {Signed(low)} and {Signed(high)}";

    private static string Signed(double? percent) =>
        Math.Round(percent ?? 0) switch
        {
            > 0 and var up => $"+{up:#,0}%",
            < 0 and var down => $"−{-down:#,0}%",
            _ => "0%",
        };

    // The whole shop
    public static string EditedListings(int count) => $"Changed {count:#,0} {(count == 1 ? "listing" : "listings")}";

    public static string Archived(int count, bool isBack) =>
        $"{(isBack ? "Restored" : "Archived")} {count:#,0} {(count == 1 ? "listing" : "listings")}";

    // Ideas
    public static string Idea(int picks, double? volume, double? headroom, int listings) =>
        (picks == 1 ? "1 pick" : $"{picks} picks that can be true of one product")
        + (volume is null ? ", no search numbers" : $", {volume:#,0} searches/mo in all")
        + (headroom is null ? ". " : $", headroom {headroom:F0} (50 is typical). ")
        + $"None of your {(listings == 1 ? "listings" : $"{listings:#,0} listings")} here is eligible for {(picks == 1 ? "it" : "any of them")}.";

    // Listings that a changed platform would refuse
    public static string TooLong(string field, int over, Core.Platforms.Unit unit) => $"{field} is {over:#,0} {Unit(unit, over)} too long";

    public static string TooMany(string field, int over) => $"{field} has {over:#,0} too many";

    public static string Empty(string field) => $"{field} is required and empty";

    // Versions
    /// <summary>Why a version was saved, as words that follow “Saved”.</summary>
    public static string SavedBecause(VersionReason reason) =>
        reason switch
        {
            VersionReason.Pause => "after a pause",
            VersionReason.ByHand => "by hand",
            VersionReason.Sent => "when it was sent",
            VersionReason.Published => "when it was published",
            VersionReason.BulkEdit => "before a change to several listings",
            VersionReason.LinksRemoved => "before links were removed",
            VersionReason.Import => "before an import",
            VersionReason.PageAdded => "before it got a page",
            VersionReason.Undo => "before an undo",
            VersionReason.OtherWindow => "before another window’s text was replaced",
            VersionReason.BroughtOver => "before text was brought over",
            VersionReason.Moves => "before moves",
            VersionReason.Attribute => "before an attribute was filled",
            VersionReason.Move => "before a move",
            VersionReason.DerivedText => "before the derived text was used",
            VersionReason.Word => "before a word was inserted",
            VersionReason.Fill => "before a fill",
            VersionReason.Restore => "before a version was restored",
            VersionReason.Title => "before another title",
            VersionReason.Fix => "before a fix",
            _ => "by an older program",
        };

    // Sending
    public static string NoMarketToSendTo(string platform) =>
        $"{platform} has no connected market. Copy or export the listing, then mark it as published.";

    // Fills
    public const string NoMaterials = "This product’s facts list no materials. Add them under Pick › Facts.";
    public const string AllMaterials = "All materials from this product’s facts are here.";

    public static string RoomLeft(int picks, bool nothing, int offers) =>
        (
            picks == 0 ? "No picks yet."
            : nothing ? "No picks left that fit."
            : "No more picks fit."
        )
        + (
            offers == 0
                ? picks == 0
                    ? " Pick terms in Dig first."
                    : " Pick more terms in Dig to use the rest."
                : $" {offers:#,0} more {(offers == 1 ? "term" : "terms")} on your shelf would fit."
        );

    // Importing
    public const string ReadingRows = "Reading rows";
    public const string AddingTerms = "Adding terms to the shelf";
    public const string UpdatingNumbers = "Updating the shelf’s numbers";

    // Digging
    public static string Suggesting(string head, string letter) => $"Getting suggestions for “{head} {letter}…”";

    public const string ReadingSellers = "Reading the top 100 listings";

    private static string Named(IReadOnlyList<string> texts) => texts.Count == 1 ? $"“{texts[0]}”" : $"{texts.Count:#,0} terms";

    private static string Name(Home home) => home.ToString().ToLowerInvariant();

    private static string Unit(Core.Platforms.Unit unit, int count) =>
        count == 1 ? unit.ToString().ToLowerInvariant().TrimEnd('s') : unit.ToString().ToLowerInvariant();
}
