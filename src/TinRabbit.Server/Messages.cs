using TinRabbit.Core.Measures;
using TinRabbit.Server.Storage;

namespace TinRabbit.Server;

/// <summary>What the server says about the seller's work, in one place to be read through: changes to undo, ideas, listings that no longer fit.</summary>
internal static class Messages
{
    // Changes, as the toast and the history show them
    public const string ReorderedPicks = "Changed the order of the picks";
    public const string ChangedFacts = "Changed the facts";

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

    // The whole shop
    public static string EditedListings(int count) => $"Changed {count:#,0} {(count == 1 ? "listing" : "listings")}";

    public static string Archived(int count, bool isBack) =>
        $"{(isBack ? "Restored" : "Archived")} {count:#,0} {(count == 1 ? "listing" : "listings")}";

    // Ideas
    public static string Idea(int picks, double volume, double headroom, int listings) =>
        $"{(picks == 1 ? "1 pick" : $"{picks} picks that can be true of one product")}, {volume:#,0} searches/mo in all, headroom {headroom:F0} (50 is typical). "
        + $"None of your {(listings == 1 ? "listings" : $"{listings:#,0} listings")} here is eligible for {(picks == 1 ? "it" : "any of them")}.";

    // Listings that a changed platform would refuse
    public static string TooLong(string field, int over, Core.Platforms.Unit unit) => $"{field} is {over:#,0} {Unit(unit, over)} too long";

    public static string TooMany(string field, int over) => $"{field} has {over:#,0} too many";

    public static string Empty(string field) => $"{field} is required and empty";

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

    private static string Name(Home home) => home == Home.Body ? "description" : home.ToString().ToLowerInvariant();

    private static string Unit(Core.Platforms.Unit unit, int count) =>
        count == 1 ? unit.ToString().ToLowerInvariant().TrimEnd('s') : unit.ToString().ToLowerInvariant();
}
