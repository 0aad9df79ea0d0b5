using TinRabbit.Core.Measures;
using TinRabbit.Core.Pages;
using TinRabbit.Core.Platforms;

namespace TinRabbit.Core.Findings;

/// <summary>Checks a listing or a page (docs/model.md, "Findings").</summary>
public static class ListingCheck
{
    /// <summary>Findings of one kind about the same words in the same place: more of them help nobody.</summary>
    internal const int MostOfOneKind = 20;

    private const int MostFindings = 500;

    /// <summary>Why the platform refuses a listing; empty where it accepts it.</summary>
    /// <param name="platform">The platform.</param>
    /// <param name="copy">The listing's fields.</param>
    /// <param name="kind">The kind of page that it is; null for a marketplace listing.</param>
    public static IReadOnlyList<Finding> Refusals(Platform platform, IReadOnlyDictionary<string, FieldValue> copy, PageKind? kind) =>
        [
            .. RoomFindings.Refusals(
                new(platform, copy, [], null, null, [], null, []) { Page = kind is { } known ? new PageToCheck(known) : null }
            ),
        ];

    /// <summary>Every finding, the checks that found nothing, and where the lead stands.</summary>
    /// <param name="draft">The listing.</param>
    /// <param name="stop">Stops the check.</param>
    public static CheckResult Check(ListingToCheck draft, CancellationToken stop = default)
    {
        draft = draft with { Terms = PickDemand.Assume(draft.Terms) };
        // Prepares the terms and weighs the listing once for all checks.
        var ready = Matching.TermSet.Prepare(draft.Platform, [.. draft.Terms.Select(t => t.Text)]);
        var now = Weigher.Weigh(ready, draft.Copy, draft.Terms, stop);
        var seen = draft.WithPictures();
        var found = RoomFindings
            .Of(draft, now)
            .Concat(GuardFindings.Of(seen))
            .Concat(TitleFindings.Of(draft))
            .Concat(HomeFindings.Of(draft, now))
            .Concat(TagFindings.Of(draft))
            .Concat(BackendFindings.Of(draft, ready))
            .Concat(ProseFindings.Of(draft, stop))
            .Concat(CategoryFindings.Of(draft));
        if (draft.Page is { } page)
            found = found.Where(f => PageFindings.Holds(draft, f)).Concat(PageFindings.Of(draft, page, stop));
        Finding[] findings =
        [
            .. found
                .Take(MostFindings)
                .Select(f => f with { Key = KeyOf(seen, f), Cost = CostOf(f) })
                .OrderByDescending(f => f.Level)
                .ThenByDescending(f => f.Cost),
        ];
        return new(findings, Checks.Passed(draft, findings), LeadPlaces.Of(draft));

        // What a fix gains is what leaving it costs; a field that is not searched costs nothing.
        double CostOf(Finding finding)
        {
            stop.ThrowIfCancellationRequested();
            return finding.Fix is { } fix && draft.Platform.Find(fix.Field) is { Indexed: true }
                ? Weigher.Weigh(ready, new Dictionary<string, FieldValue>(draft.Copy) { [fix.Field] = fix.Value }, draft.Terms, stop).Grip
                    - now.Grip
                : 0;
        }
    }

    // A finding about some words keeps its key while those words are there; one about a field, while the field is the same.
    // A claim is the same wherever it is made, so that it is shown and dismissed once for its word.
    private static string KeyOf(ListingToCheck draft, Finding finding)
    {
        if (finding.Claim is { } claim)
            return $"{finding.Id} {claim.Facet.ToString().ToLowerInvariant()} {Words.Tokens.Key(claim.Word)}";
        var field = draft.Platform.Find(finding.Field);
        var texts = field is null ? [] : draft.Texts(field);
        var about =
            finding.Length > 0 && finding.Item < texts.Count && finding.Start + finding.Length <= texts[finding.Item].Length
                ? texts[finding.Item].Substring(finding.Start, finding.Length)
                : string.Join('\n', texts);
        var digest = System.Security.Cryptography.SHA256.HashData(System.Text.Encoding.UTF8.GetBytes(about));
        return $"{finding.Id} {finding.Field} {Convert.ToHexStringLower(digest.AsSpan(0, 8))}{(finding.Subject.Length > 0 ? " " + finding.Subject : "")}";
    }
}
