using TinRabbit.Server.Files.Tables;

namespace TinRabbit.Server.Features.Dig;

/// <summary>What Dig says: changes to the shelf, and the steps of what takes a while.</summary>
internal static class DigMessages
{
    public static string SavedFilter(string name) => $"Saved the filter “{name}”";

    public static string DeletedTerms(IReadOnlyList<string> texts) => $"Deleted {Named(texts)} from the shelf";

    public static string ChoseSupply(Supply supply) =>
        supply == Supply.ExactTitles
            ? "Headroom now goes by exact-title matches in this market"
            : "Headroom now goes by competing listings in this market";

    public static string Imported(int terms, string source) => $"Imported {terms:#,0} {(terms == 1 ? "term" : "terms")} from “{source}”";

    public static string Pasted(int terms, string source) => $"Added {terms:#,0} {(terms == 1 ? "term" : "terms")} from “{source}”";

    /// <summary>Says what was judged of a result; null where it is judged no longer.</summary>
    public static string Judged(string term, bool? isLike) =>
        isLike switch
        {
            true => $"Judged a result of “{term}” to be like yours",
            false => $"Judged a result of “{term}” to be unlike yours",
            null => $"Judged a result of “{term}” no longer",
        };

    public static string Corrected(string term) => $"Corrected the numbers of “{term}”";

    public static string RemovedImport(string source) => $"Import “{source}”";

    /// <summary>Why terms are not measured in the background, where the source is not to blame.</summary>
    public const string MeasuringFailed = "Looking up terms failed; it is tried again in five minutes.";

    public const string ReadingRows = "Reading rows";
    public const string AddingTerms = "Adding terms to the shelf";
    public const string UpdatingNumbers = "Updating the shelf’s numbers";

    public static string Suggesting(string head, string letter) => $"Getting suggestions for “{head} {letter}…”";

    public const string ReadingSellers = "Reading the top 100 listings";

    /// <summary>What a column of a table of terms holds.</summary>
    public static string NameOf(ColumnRole role) =>
        role switch
        {
            ColumnRole.Term => "Term",
            ColumnRole.Volume => "Searches/mo",
            ColumnRole.Competition => "Competing listings",
            ColumnRole.TitlesHolding => "Exact-title matches",
            ColumnRole.ClickCost => "CPC",
            ColumnRole.Popularity => "Popularity rank",
            ColumnRole.Clicks => "Clicks",
            ColumnRole.Orders => "Orders",
            ColumnRole.Sales => "Sales",
            ColumnRole.Month => "Month",
            _ => "Not used",
        };

    private static string Named(IReadOnlyList<string> texts) => texts.Count == 1 ? $"“{texts[0]}”" : $"{texts.Count:#,0} terms";
}
