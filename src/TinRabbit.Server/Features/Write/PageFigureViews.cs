using TinRabbit.Server.Listings;
using TinRabbit.Server.Picks;
using TinRabbit.Server.Shelf;

namespace TinRabbit.Server.Features.Write;

/// <summary>How a web page shows in search results, and the figures of its body.</summary>
internal static class PageFigureViews
{
    private const int MostModifiers = 60;

    // The width of an entry at a phone's width, in pixels: a title has one line there, a description three.
    private const double PhoneWidth = 320;
    private const int PhoneLines = 3;

    public static async Task<PageFigures> Of(
        OpenDraft open,
        PageRow page,
        string marketId,
        TinContext db,
        Shelves shelves,
        CancellationToken stop
    )
    {
        var site = await db.Site(stop);
        var body = RichBody.Read(open.TextOf("body"));
        var (derivedTitle, derivedDescription) = (DerivedText.PageTitle(open.TextOf("heading")), DerivedText.MetaDescription(body));
        var ownTitle = open.TextOf("title") is { Length: > 0 } own ? own : derivedTitle;
        var title = ownTitle + site.SuffixOf(page);
        var description = open.TextOf("meta") is { Length: > 0 } meta ? meta : derivedDescription;
        var figures = BodyFigures.Of(open.Platform, body, open.Lead, stop);
        var facts = open.Listing.Product.Facts;
        var modifiers = open.Lead is null
            ? []
            : Modifiers.Of(open.Lead, [ownTitle, description, body.Text], facts == new Facts() ? null : facts.Words);
        return new(
            Shown(open, "title", title, PhoneWidth, stop),
            Shown(open, "meta", description, PhoneWidth * PhoneLines, stop),
            derivedTitle,
            derivedDescription,
            site.AddressOf(page.IsHome, open.TextOf("slug")),
            await Crumbs(db, page, open.Platform, stop),
            figures.Words,
            figures.LeadUses,
            figures.LeadRate,
            figures.LeadInFirst,
            figures.Outline,
            open.Lead is { } lead ? Modifiers.HeadOf(lead, facts.Words) : "",
            await Measured(db, shelves, marketId, modifiers, stop)
        );
    }

    private static ShownText Shown(OpenDraft open, string role, string text, double phone, CancellationToken stop)
    {
        var limit = open.Platform.Role(role)?.Limit;
        int Cut(double? pixels) => limit?.FontSize is { } size && pixels is { } most ? PixelWidth.Cut(text, size, most) : text.Length;
        return new(
            text,
            limit?.FontSize is { } own ? PixelWidth.Of(text, own) : 0,
            Marks(open, text, stop),
            Cut(limit?.MaxPixels),
            Cut(phone)
        );
    }

    private static IReadOnlyList<TextMark> Marks(OpenDraft open, string text, CancellationToken stop)
    {
        if (open.Lead is null)
            return [];
        var held = Weigher.Weigh(open.Platform.OfOneText(), Platform.CopyOf(text), [new(open.Lead)], stop).Terms[0];
        return held.Grade == Grade.Missing ? [] : [.. held.Explain().Spans.Select(s => new TextMark(s.Start, s.Length))];
    }

    private static async Task<IReadOnlyList<string>> Crumbs(TinContext db, PageRow page, Platform platform, CancellationToken stop)
    {
        var (names, parent) = (new List<string>(), page.ParentId);
        while (
            parent is { } id
            && names.Count < Outline.MostLevels
            && await db.Pages.AsNoTracking().Include(p => p.Listing).ThenInclude(l => l.Product).FirstOrDefaultAsync(p => p.Id == id, stop)
                is { } above
        )
        {
            names.Insert(0, above.MenuNameOf(platform));
            parent = above.ParentId;
        }

        return names;
    }

    // Those with demand first; a missing one without demand is no help.
    private static async Task<IReadOnlyList<ModifierView>> Measured(
        TinContext db,
        Shelves shelves,
        string marketId,
        IReadOnlyList<Modifier> modifiers,
        CancellationToken stop
    )
    {
        var some = modifiers.Take(MostModifiers).ToList();
        var terms = await shelves.MeasureTyped(db, marketId, [.. some.Select(m => m.Term)], stop);
        return
        [
            .. some.Select(m => new ModifierView(
                    m.Word,
                    m.Term,
                    terms.GetValueOrDefault(Core.Words.Tokens.Key(m.Term))?.Reading?.Volume,
                    m.IsUsed
                ))
                .Where(m => m.Volume > 0 || (m.IsUsed && Core.Words.Facets.ClaimsOf(m.Word).Count > 0))
                .OrderByDescending(m => m.Volume ?? -1),
        ];
    }
}
