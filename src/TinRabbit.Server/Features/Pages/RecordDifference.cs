using TinRabbit.Server.Files.Documents;
using TinRabbit.Server.Journal;
using TinRabbit.Server.Listings;

namespace TinRabbit.Server.Features.Pages;

/// <summary>What a document tells of that a shop lacks, kind by kind.</summary>
internal static class RecordDifference
{
    /// <summary>How many there are of each kind, now and after an import, where it adds any.</summary>
    public static IEnumerable<(string Label, string Before, string After)> Of(DocumentRecords given, DocumentRecords there)
    {
        if (given.ArchivedAt is { } archived && there.ArchivedAt is null)
            yield return ("Archived", "", $"{archived:yyyy-MM-dd}");
        foreach (
            var change in (IEnumerable<(string, string, string)?>)
                [
                    Count("Earlier versions", given.Versions, there.Versions, Identity),
                    Count("Dismissed findings", given.Dismissed, there.Dismissed, Identity),
                    Count("Texts that went live", given.Sent, there.Sent, Identity),
                    Count("Change notes", given.Notes, there.Notes, Identity),
                    Count("Terms to check", given.Followed, there.Followed, Identity),
                    Count("Found checks", given.Checks, there.Checks, Identity),
                    Count("Days of figures", given.Figures, there.Figures, Identity),
                    Count("Rivals", given.Rivals, there.Rivals, Identity),
                    Count("Reviews", given.Reviews, there.Reviews, Identity),
                ]
        )
            if (change is { } more)
                yield return more;
    }

    /// <summary>The same for change notes.</summary>
    public static IEnumerable<(string Label, string Before, string After)> Of(
        IReadOnlyList<DocumentNote>? given,
        IReadOnlyList<DocumentNote> there
    ) => Count("Change notes", given, there, Identity) is { } more ? [more] : [];

    /// <summary>The same for digs.</summary>
    public static IEnumerable<(string Label, string Before, string After)> Of(
        IReadOnlyList<DocumentDig>? given,
        IReadOnlyList<DocumentDig> there
    ) => Count("Digs", given, there, Identity) is { } more ? [more] : [];

    /// <summary>The same for judged results.</summary>
    public static IEnumerable<(string Label, string Before, string After)> Of(
        IReadOnlyList<DocumentLikeness>? given,
        IReadOnlyList<DocumentLikeness> there
    ) => Count("Terms with judged results", given, there, Identity) is { } more ? [more] : [];

    /// <summary>Finds numbers that cannot be.</summary>
    /// <exception cref="InvalidInputException">There is one.</exception>
    public static void ThrowIfImpossible(DocumentRecords given)
    {
        foreach (var figure in given.Figures ?? [])
            if (new[] { figure.Views, figure.Clicks, figure.Sales }.Any(n => n is < 0 or > Bounds.Count))
                throw Wrong($"The figures of {figure.Day:yyyy-MM-dd} aren’t possible. They go from 0 to {Bounds.Count:#,0}.");
        foreach (var find in (given.Checks ?? []).SelectMany(c => c.Finds ?? []))
            if (find is { Rank: < 1 } or { Results: < 0 or > Bounds.Count })
                throw Wrong($"What a check found for “{find.Term}” isn’t possible. Ranks begin with 1, results with 0.");
        foreach (var review in given.Reviews ?? [])
            if (review.Stars is not (null or (>= 1 and <= 5)))
                throw Wrong($"{review.Stars} stars aren’t possible. Stars go from 1 to 5.");
        foreach (var watch in given.Watches ?? [])
            if (watch.PageSize is < 1 or > WatchRow.MostPageSize)
                throw Wrong($"A page of {watch.PageSize:#,0} results isn’t possible. It has from 1 to {WatchRow.MostPageSize:#,0}.");
    }

    /// <summary>What is not there yet.</summary>
    public static IReadOnlyList<T> Lacking<T, TKey>(IReadOnlyList<T>? given, IReadOnlyList<T>? there, Func<T, TKey> identity)
    {
        var known = (there ?? []).Select(identity).ToHashSet();
        return [.. (given ?? []).Where(g => !known.Contains(identity(g)))];
    }

    private static (string, string, string)? Count<T, TKey>(
        string label,
        IReadOnlyList<T>? given,
        IReadOnlyList<T>? there,
        Func<T, TKey> identity
    )
    {
        var (before, more) = ((there ?? []).Count, Lacking(given, there, identity).Count);
        return more == 0 ? null : (label, before == 0 ? "" : $"{before:#,0}", $"{before + more:#,0}");
    }

    // Two that agree in this are one.
    public static (DateTime, VersionReason) Identity(DocumentVersion version) => (version.At, version.Reason);

    public static string Identity(DocumentDismissal dismissal) => dismissal.Key;

    public static (string, DateTime) Identity(DocumentSent sent) => (sent.Market, sent.At);

    public static (DateTime, string, string?, string?) Identity(DocumentNote note) => (note.At, note.Text, note.Market, note.Term);

    public static (string, string) Identity(DocumentFollowed followed) => (followed.Market, Tokens.Key(followed.Term));

    public static (string, DateTime, DateOnly, string) Identity(DocumentCheck check) => (check.Market, check.At, check.Day, check.Source);

    public static (string, DateOnly, string) Identity(DocumentFigure figure) => (figure.Market, figure.Day, figure.Source);

    public static (string, DateTime, string?) Identity(DocumentRival rival) => (rival.Market, rival.SavedAt, rival.MarketListing);

    public static (string, bool, DateOnly?, string) Identity(DocumentReview review) =>
        (review.Text, review.OfRivals, review.At, $"{review.Source} {review.Author} {review.Stars}");

    public static (string, string) Identity(DocumentLikeness likeness) => (likeness.Market, Tokens.Key(likeness.Term));

    public static (string, string, DateTime) Identity(DocumentDig dig) => (dig.Market, Tokens.Key(dig.Term), dig.At);

    private static InvalidInputException Wrong(string message) => new([new("file", message)]);
}
