using TinRabbit.Core.Filling;
using TinRabbit.Core.Matching;
using TinRabbit.Core.Measures;
using TinRabbit.Core.Pages;
using TinRabbit.Core.Platforms;
using TinRabbit.Core.Words;

namespace TinRabbit.Core.Findings;

/// <summary>A page of the web shop: its title, meta description, slug, headings, body, links and pictures (docs/model.md, "Pages").</summary>
internal static class PageFindings
{
    private static readonly HashSet<string> Inviting = [.. WordData.Lines("inviting.txt", "Pages")];

    /// <summary>Findings about listings that are told differently for a page.</summary>
    private static readonly HashSet<string> Replaced = ["unused", "description-short", "what-late"];

    /// <summary>Whether a finding about a listing also holds for a page: a page title or a meta description that is too long is not refused.</summary>
    public static bool Holds(ListingToCheck draft, Finding finding) =>
        !Replaced.Contains(finding.Id)
        && !(finding.Id == "over-limit" && draft.Platform.Find(finding.Field)?.Role is "title" or "meta" or "slug" or "alt");

    public static IEnumerable<Finding> Of(ListingToCheck draft, PageToCheck page, CancellationToken stop)
    {
        var body = draft.Role("body") is { } field ? RichBody.Read(Raw(draft, field)) : new([], [], []);
        return Title(draft, page)
            .Concat(Meta(draft, page, body))
            .Concat(Slug(draft, page))
            .Concat(Headings(draft, page, body))
            .Concat(Body(draft, page, body, stop))
            .Concat(Links(draft, page, body))
            .Concat(PictureFindings.Of(draft, page, body))
            .Concat(Shop(draft, page));
    }

    private static IEnumerable<Finding> Title(ListingToCheck draft, PageToCheck page)
    {
        if (draft.Role("title") is not { } field)
            yield break;
        var (title, name) = (draft.TextOf(field).Trim(), NameOf(draft));
        if (title.Length == 0)
        {
            if (name.Length > 0)
                yield return About(
                    "page-title-empty",
                    field,
                    PageTexts.TitleEmpty(name + page.TitleSuffix),
                    Fixed(PageTexts.WriteOut, field, name)
                );
            yield break;
        }

        var (all, least, most) = (
            title + page.TitleSuffix,
            page.Threshold(draft.Platform, "pageTitleMin"),
            page.Threshold(draft.Platform, "pageTitleMax")
        );
        var characters = TextLength.Of(all, Unit.Characters);
        if (characters < least)
            yield return About("page-title-short", field, PageTexts.TitleShort(characters, page.TitleSuffix, least));
        else if (characters > most)
            yield return About(
                "page-title-long",
                field,
                PageTexts.TitleLong(characters, page.TitleSuffix, most),
                Shortened(field, title, (int)most - TextLength.Of(page.TitleSuffix, Unit.Characters))
            );
        else if (field.Limit is { MaxPixels: { } pixels, FontSize: { } size } && PixelWidth.Of(all, size) is var width && width > pixels)
            yield return About("page-title-wide", field, PageTexts.TitleWide(width, page.TitleSuffix, pixels));
        if (draft.Lead is { } lead && Tokens.HasPhrase(title, lead) && !StartsWith(title, lead))
            yield return About(
                "page-title-lead-late",
                field,
                PageTexts.LeadLate(lead),
                Reorder.MakeContiguous(title, lead, draft.Platform.Search.Folds, field.Separator) is { } moved && StartsWith(moved, lead)
                    ? Fixed(FindingTexts.MoveToFront, field, moved)
                    : null
            );
        if (page.Brand.Length == 0)
            yield break;
        if (!Tokens.HasPhrase(all, page.Brand))
            yield return About(
                "page-title-brand",
                field,
                PageTexts.BrandMissing(page.Brand),
                $"{title} – {page.Brand}" is var branded && TextLength.Of(branded, Unit.Characters) <= most
                    ? Fixed(PageTexts.AddBrand, field, branded)
                    : null
            );
        else if (StartsWith(title, page.Brand) && draft.Lead is { } wanted && !StartsWith(wanted, page.Brand))
            yield return About("page-title-brand-first", field, PageTexts.BrandFirst(page.Brand));
    }

    private static IEnumerable<Finding> Meta(ListingToCheck draft, PageToCheck page, RichBody body)
    {
        if (draft.Role("meta") is not { } field)
            yield break;
        var meta = draft.TextOf(field).Trim();
        if (meta.Length == 0)
        {
            var derived = DerivedText.MetaDescription(body);
            yield return About(
                "meta-empty",
                field,
                PageTexts.MetaEmpty(derived),
                derived.Length > 0 ? Fixed(PageTexts.WriteOut, field, derived) : null
            );
            yield break;
        }

        var (least, most) = (page.Threshold(draft.Platform, "metaMin"), page.Threshold(draft.Platform, "metaMax"));
        var characters = TextLength.Of(meta, Unit.Characters);
        if (characters < least)
            yield return About("meta-short", field, PageTexts.MetaShort(characters, least));
        else if (characters > most)
            yield return About("meta-long", field, PageTexts.MetaLong(characters, most), Shortened(field, meta, (int)most));
        else if (field.Limit is { MaxPixels: { } pixels, FontSize: { } size } && PixelWidth.Of(meta, size) is var width && width > pixels)
            yield return About("meta-wide", field, PageTexts.MetaWide(width, pixels));
        if (draft.Lead is { } lead && !Holds(draft, meta, lead))
            yield return About("meta-lead", field, PageTexts.MetaLead(lead));
        if (!meta.Split('.', '!', '?', ';', ':').Any(s => Tokens.Of(s).FirstOrDefault() is { Word: { } first } && Inviting.Contains(first)))
            yield return About("meta-verb", field, PageTexts.MetaVerb);
    }

    private static IEnumerable<Finding> Slug(ListingToCheck draft, PageToCheck page)
    {
        if (draft.Role("slug") is not { } field || draft.TextOf(field) is not { Length: > 0 } slug)
            yield break;
        var made = draft.Lead is { } lead ? Slugs.Of(lead, page.TakenSlugs.Contains) : "";
        var fix = made.Length > 0 && made != slug ? Fixed(PageTexts.SlugFromLead, field, made) : null;
        var most = page.Threshold(draft.Platform, "slugMax");
        if (page.SlugTakenBy is { } other)
            yield return About("slug-taken", field, PageTexts.SlugTaken(other), fix) with
            {
                Level = Level.Must,
            };
        if (slug.Length > most)
            yield return About("slug-long", field, PageTexts.SlugLong(slug.Length, most), fix);
        else if (!Slugs.IsSlug(slug))
            yield return About(
                "slug-form",
                field,
                PageTexts.SlugForm,
                fix ?? Fixed(PageTexts.SlugFromLead, field, Slugs.Of(slug, page.TakenSlugs.Contains))
            );
        else if (draft.Lead is { } wanted && !Slugs.Of(wanted, _ => false).Split('-').All(slug.Split('-').Contains))
            yield return About("slug-lead", field, PageTexts.SlugLead(wanted), fix);
    }

    private static IEnumerable<Finding> Headings(ListingToCheck draft, PageToCheck page, RichBody body)
    {
        if (
            draft.Role("heading") is { } heading
            && draft.Lead is { } lead
            && NameOf(draft) is { Length: > 0 } name
            && !Holds(draft, name, lead)
        )
            yield return About("heading-lead", heading, PageTexts.HeadingLead(lead));
        if (page.SameName.Count > 0 && draft.Role("heading") is { } named)
            yield return About("same-name", named, PageTexts.SameName(NameOf(draft), page.SameName));
        if (draft.Role("body") is not { } field)
            yield break;
        var html = Raw(draft, field);
        var tops = body.Blocks.Count(b => b.Level == 1);
        if (tops > 0)
            yield return About(
                "second-heading",
                field,
                PageTexts.SecondHeading(tops),
                Fixed(
                    PageTexts.LowerHeadings,
                    field,
                    html.Replace("<h1", "<h2", StringComparison.OrdinalIgnoreCase)
                        .Replace("</h1", "</h2", StringComparison.OrdinalIgnoreCase)
                )
            );
    }

    private static IEnumerable<Finding> Body(ListingToCheck draft, PageToCheck page, RichBody body, CancellationToken stop)
    {
        if (draft.Role("body") is not { } field)
            yield break;
        if (body.Blocks.Count == 0)
        {
            if (page.Kind == PageKind.Category)
                yield return About("category-text", field, PageTexts.CategoryText);
            yield break;
        }

        var figures = BodyFigures.Of(draft.Platform, body, draft.Lead, stop);
        if (page.Threshold(draft.Platform, "bodyMinWords") is var least && figures.Words < least)
            yield return About("body-short", field, PageTexts.BodyShort(figures.Words, least));
        if (draft.Lead is not { } lead)
            yield break;
        if (!figures.LeadInFirst)
            yield return About("lead-not-first", field, PageTexts.LeadInFirst(lead));
        if (page.Threshold(draft.Platform, "leadMinUses") is var uses && figures.LeadUses < uses)
            yield return About("lead-few", field, PageTexts.LeadFew(lead, figures.LeadUses, uses));
    }

    private static IEnumerable<Finding> Links(ListingToCheck draft, PageToCheck page, RichBody body)
    {
        if (draft.Role("body") is not { } field || body.Blocks.Count == 0)
            yield break;
        var html = Raw(draft, field);
        var (inner, outer) = (0, 0);
        foreach (var link in body.Links)
            if (link.PageId is { } id)
            {
                inner++;
                if (page.Published?.Contains(id) != false)
                    continue;
                var at = Math.Max(0, html.IndexOf($"\"{link.Address}\"", StringComparison.Ordinal));
                yield return new("dead-link", Level.Should, field.Key, 0, at, 0, PageTexts.DeadLink, WithoutLink(field, html, link))
                {
                    Subject = link.Address,
                };
            }
            else if (Uri.TryCreate(link.Address, UriKind.Absolute, out var address) && address.Host != page.Host)
                outer += address.Scheme is "http" or "https" ? 1 : 0;
            else
                inner++;
        if (inner < page.Threshold(draft.Platform, "innerLinksMin"))
            yield return About(
                "no-inner-link",
                field,
                PageTexts.NoInnerLink,
                page.Parent is { } parent
                    ? Fixed(
                        PageTexts.LinkToParent,
                        field,
                        $"{html}<p><a href=\"{RichLink.PagePrefix}{parent.Id}\">{System.Net.WebUtility.HtmlEncode(parent.Name)}</a></p>"
                    )
                    : null
            );
        if (outer < page.Threshold(draft.Platform, "outerLinksMin"))
            yield return About("no-outer-link", field, PageTexts.NoOuterLink) with
            {
                Level = Level.Fine,
            };
    }

    private static IEnumerable<Finding> Shop(ListingToCheck draft, PageToCheck page)
    {
        if (page.SameLead.Count > 0 && draft.Role("title") is { } title)
            yield return About("same-lead", title, PageTexts.SameLead(page.SameLead));
        if (draft.Role("menu") is not { } menu || page.Kind != PageKind.Category)
            yield break;
        var (name, most) = (draft.TextOf(menu) is { Length: > 0 } own ? own : NameOf(draft), page.Threshold(draft.Platform, "menuNameMax"));
        if (TextLength.Of(name, Unit.Characters) is var characters && characters > most)
            yield return About("menu-long", menu, PageTexts.MenuLong(characters, most));
    }

    /// <summary>A finding about a field as a whole.</summary>
    internal static Finding About(string id, Field field, string why, Fix? fix = null) =>
        new(id, Level.Should, field.Key, 0, 0, 0, why, fix);

    /// <summary>Whether a text has a term: exactly, in another form, or all its words in any order.</summary>
    internal static bool Holds(ListingToCheck draft, string text, string term) =>
        Weigher.Weigh(draft.Platform.OfOneText(), Platform.CopyOf(text), [new(term)], default).Terms[0].Grade != Grade.Missing;

    private static Fix Fixed(string label, Field field, string text) => new(label, field.Key, new FieldValue.Text(text));

    private static string NameOf(ListingToCheck draft) => draft.Role("heading") is { } heading ? draft.TextOf(heading).Trim() : "";

    private static bool StartsWith(string text, string phrase) =>
        $"{Tokens.Key(text)} ".StartsWith($"{Tokens.Key(phrase)} ", StringComparison.Ordinal);

    private static string Raw(ListingToCheck draft, Field field) =>
        draft.Copy.GetValueOrDefault(field.Key) is FieldValue.Text text ? text.Value : "";

    // Up to the last whole word that fits; none where not even one does.
    private static Fix? Shortened(Field field, string text, int most)
    {
        var end = 0;
        foreach (var token in Tokens.Of(text))
            if (TextLength.Of(text[..token.End], Unit.Characters) <= most)
                end = token.End;
        return end > 0 ? Fixed(FindingTexts.Shorten, field, text[..end]) : null;
    }

    // The body with a link's text in the place of the link.
    private static Fix? WithoutLink(Field field, string html, RichLink link)
    {
        var at = html.IndexOf($"\"{link.Address}\"", StringComparison.Ordinal);
        var open = at < 0 ? -1 : html.LastIndexOf("<a", at, StringComparison.OrdinalIgnoreCase);
        var (start, end) = (
            open < 0 ? -1 : html.IndexOf('>', at),
            open < 0 ? -1 : html.IndexOf("</a>", at, StringComparison.OrdinalIgnoreCase)
        );
        return start < 0 || end < start
            ? null
            : Fixed(PageTexts.RemoveLink, field, html[..open] + html[(start + 1)..end] + html[(end + "</a>".Length)..]);
    }
}
