namespace TinRabbit.Server.Features.Pick;

/// <summary>What Pick says: changes to picks and facts, ideas.</summary>
internal static class PickMessages
{
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

    public static string Idea(int picks, double? volume, double? headroom, int listings) =>
        (picks == 1 ? "1 pick" : $"{picks} picks that can be true of one product")
        + (volume is null ? ", no search numbers" : $", {volume:#,0} searches/mo in all")
        + (headroom is null ? ". " : $", headroom {headroom:F0} (50 is typical). ")
        + $"None of your {(listings == 1 ? "listings" : $"{listings:#,0} listings")} here is eligible for {(picks == 1 ? "it" : "any of them")}.";

    private static string Name(Home home) => home.ToString().ToLowerInvariant();

    private static string Named(IReadOnlyList<string> texts) => texts.Count == 1 ? $"“{texts[0]}”" : $"{texts.Count:#,0} terms";
}
