using TinRabbit.Core.Pages;
using TinRabbit.Core.Platforms;
using TinRabbit.Core.Words;

namespace TinRabbit.Core.Findings;

/// <summary>Every check there is, and to which listings it applies.</summary>
internal static class Checks
{
    // In the order in which a listing is written.
    private static readonly (string Id, Func<ListingToCheck, bool> Applies)[] All =
    [
        ("required-empty", d => d.Platform.Fields.Any(f => f.Required)),
        ("over-limit", d => d.Platform.Fields.Any(f => f.Limit?.Max is not null)),
        ("over-items", d => d.Platform.Fields.Any(f => f.Limit?.MaxItems is not null)),
        ("unused", d => d.Page is null && d.Platform.Fields.Any(f => f.Role is "title" or "tags" or "backend" && f.Limit is not null)),
        ("would-fit", d => d.Terms.Count > 0 && d.Platform.Fields.Any(f => f is { Indexed: true, Shape: FieldShape.Words })),
        ("home-missing", d => d.Terms.Any(t => t.Counts && t.Home != Measures.Home.Anywhere)),
        ("avoided", d => d.Avoid.Count > 0),
        ("banned", d => d.Platform.Banned.Count > 0),
        ("claim", d => d.HeldFacts is not null),
        ("promise", d => HasText(d)),
        ("shouting", d => HasText(d)),
        ("lead-long", d => d.Lead is not null),
        ("lead-not-whole", d => d.Lead is not null && Has(d, "title")),
        ("lead-not-shown", d => d.Lead is not null && Has(d, "title") && d.Role("title")!.Shows is not null),
        ("what-late", d => d.Page is null && d.Facts?.What.Length > 0 && Has(d, "title")),
        ("title-repeat", d => Has(d, "title")),
        ("title-no-fact", d => Has(d, "title") && TitleFindings.FilteredFacts(d).Count > 0),
        ("same-tag", d => Has(d, "tags")),
        ("tag-reordered", d => Has(d, "tags")),
        ("shop-name", d => d.Role("tags") is not null && d.Threshold("shopNameInTags") > 0 && d.ShopName is { Length: > 0 }),
        ("backend-repeat", d => Has(d, "backend")),
        ("description-short", d => d.Page is null && Has(d, "body")),
        ("description-unfinished", d => Has(d, "body")),
        ("begins-with-title", d => Has(d, "body") && Has(d, "title")),
        ("list-of-picks", d => Has(d, "body")),
        ("repeated-list", d => Has(d, "body") || Has(d, "bullets")),
        ("opening-no-core", d => Has(d, "body") && d.Terms.Any(t => t.Counts && t.Fit == Measures.Fit.Core)),
        ("stuffed", d => Has(d, "body") && d.Terms.Count > 0),
        ("mixed-spelling", d => HasText(d)),
        ("category-unknown", d => d.Platform.Fields.Any(f => f.Shape == FieldShape.Path && f.Tree.Count > 0 && d.TextOf(f).Length > 0)),
        ("category-deeper", d => d.Platform.Fields.Any(f => f.Shape == FieldShape.Path && f.Tree.Count > 0 && d.TextOf(f).Length > 0)),
        ("attribute-empty", d => d.Rivals.Count > 0 && d.Platform.Fields.Any(f => f.Shape == FieldShape.Choices)),
        (
            "attribute-unlisted",
            d => d.Rivals.Count > 0 && d.Platform.Fields.Any(f => f.Shape == FieldShape.Choices && f.Attributes.Count > 0)
        ),
        .. OfPages(
            ("page-title-empty", d => d.Role("title") is not null),
            ("page-title-short", d => Has(d, "title")),
            ("page-title-long", d => Has(d, "title")),
            ("page-title-wide", d => Has(d, "title") && d.Role("title")!.Limit?.MaxPixels is not null),
            ("page-title-lead-late", d => d.Lead is not null && Has(d, "title")),
            ("page-title-brand", d => d.Page!.Brand.Length > 0 && Has(d, "title")),
            ("page-title-brand-first", d => d.Page!.Brand.Length > 0 && Has(d, "title")),
            ("meta-empty", d => d.Role("meta") is not null),
            ("meta-short", d => Has(d, "meta")),
            ("meta-long", d => Has(d, "meta")),
            ("meta-wide", d => Has(d, "meta") && d.Role("meta")!.Limit?.MaxPixels is not null),
            ("meta-lead", d => d.Lead is not null && Has(d, "meta")),
            ("meta-verb", d => Has(d, "meta")),
            ("slug-taken", d => Has(d, "slug")),
            ("slug-long", d => Has(d, "slug")),
            ("slug-form", d => Has(d, "slug")),
            ("slug-lead", d => d.Lead is not null && Has(d, "slug")),
            ("heading-lead", d => d.Lead is not null && Has(d, "heading")),
            ("second-heading", d => Has(d, "body")),
            ("body-short", d => Has(d, "body")),
            ("category-text", d => d.Page!.Kind == PageKind.Category && d.Role("body") is not null),
            ("same-name", d => d.Page!.Kind == PageKind.Category && Has(d, "heading")),
            ("lead-not-first", d => d.Lead is not null && Has(d, "body")),
            ("lead-few", d => d.Lead is not null && Has(d, "body")),
            ("no-inner-link", d => Has(d, "body")),
            ("no-outer-link", d => Has(d, "body")),
            ("dead-link", d => Has(d, "body")),
            ("no-picture", _ => true),
            ("alt-missing", d => d.Pictures.Count > 0),
            ("alt-long", d => d.Pictures.Count > 0),
            ("alt-opening", d => d.Pictures.Count > 0),
            ("alt-strung", d => d.Pictures.Count > 0),
            ("alt-advert", d => d.Pictures.Count > 0),
            ("picture-small", d => d.Page!.PictureSides.Any(s => s is not null)),
            ("alt-same", d => d.Pictures.Count > 1),
            ("alt-lead", d => d.Lead is not null && d.Pictures.Count > 0),
            ("same-lead", d => d.Lead is not null),
            ("menu-long", d => d.Page!.Kind == PageKind.Category && d.Role("menu") is not null)
        ),
    ];

    /// <summary>The checks that apply to a listing and found nothing.</summary>
    public static IReadOnlyList<PassedCheck> Passed(ListingToCheck draft, IEnumerable<Finding> findings)
    {
        var found = findings.Select(f => f.Id).ToHashSet(StringComparer.Ordinal);
        return
        [
            .. All.Where(c => !found.Contains(c.Id) && c.Applies(draft))
                .Select(c => new PassedCheck(c.Id, PassedTexts.Of(c.Id).Text, PassedTexts.Of(c.Id).How(name => ThresholdOf(draft, name)))),
        ];
    }

    /// <summary>The ids of all checks.</summary>
    public static IEnumerable<string> Ids => All.Select(c => c.Id);

    private static double ThresholdOf(ListingToCheck draft, string name) =>
        ListingToCheck.Thresholds.ContainsKey(name) ? draft.Threshold(name) : draft.Page?.Threshold(draft.Platform, name) ?? 0;

    private static IEnumerable<(string, Func<ListingToCheck, bool>)> OfPages(
        params (string Id, Func<ListingToCheck, bool> Applies)[] checks
    ) => checks.Select(c => (c.Id, (Func<ListingToCheck, bool>)(d => d.Page is not null && c.Applies(d))));

    private static bool Has(ListingToCheck draft, string role) => draft.Role(role) is { } field && Tokens.Of(draft.TextOf(field)).Count > 0;

    private static bool HasText(ListingToCheck draft) =>
        draft.Platform.Fields.Any(f => f.Shape is not (FieldShape.Path or FieldShape.Choices) && draft.TextOf(f).Length > 0);
}
