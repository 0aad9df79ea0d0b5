using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using TinRabbit.Core.Matching;
using TinRabbit.Core.Measures;
using TinRabbit.Core.Pages;
using TinRabbit.Core.Platforms;
using TinRabbit.Server.Hosting;
using TinRabbit.Server.Storage;

namespace TinRabbit.Server.Write;

/// <summary>Figures of a page's draft.</summary>
/// <param name="Title">The page title with what the site adds; derived where the page has none of its own.</param>
/// <param name="TitlePixels">Its width.</param>
/// <param name="TitleMarks">Where the lead's words are in it, as start and length.</param>
/// <param name="Description">The meta description; derived where the page has none of its own.</param>
/// <param name="DerivedTitle">What a shop system would show as page title.</param>
/// <param name="DerivedDescription">What it would show as meta description.</param>
/// <param name="Crumbs">Names of the pages that it is inside, from the top.</param>
/// <param name="LeadRate">Occurrences of the lead per 100 words.</param>
/// <param name="Head">The head noun of the lead; empty without a lead.</param>
public sealed record PageFigures(
    string Title,
    double TitlePixels,
    IReadOnlyList<TextMark> TitleMarks,
    string Description,
    double DescriptionPixels,
    IReadOnlyList<TextMark> DescriptionMarks,
    string DerivedTitle,
    string DerivedDescription,
    string Address,
    IReadOnlyList<string> Crumbs,
    int Words,
    int LeadUses,
    double LeadRate,
    bool LeadInFirst,
    IReadOnlyList<RichBlock> Outline,
    string Head,
    IReadOnlyList<ModifierView> Modifiers
);

/// <summary>A stretch of a text, in UTF-16 units.</summary>
public sealed record TextMark(int Start, int Length);

/// <summary>A modifier of the head noun with its demand.</summary>
/// <param name="Volume">Searches a month of modifier and head; null when unknown.</param>
/// <param name="IsUsed">Whether the page has it; otherwise the facts allow it.</param>
public sealed record ModifierView(string Word, string Term, long? Volume, bool IsUsed);

internal static class PageFiguresApi
{
    private const int MostModifiers = 60;

    public static void MapPageFigures(this IEndpointRouteBuilder app) =>
        app.MapPost("/api/listings/{id:int}/page", GetFigures)
            .WithName("GetPageFigures")
            .WithTags("Write")
            .ProducesValidationProblem()
            .WithRequestTimeout(ProblemAnswers.Computes);

    private static async Task<Results<Ok<PageFigures>, NotFound>> GetFigures(
        int id,
        DraftOf draft,
        TinContext db,
        PreparedPicksCache ready,
        Shelves shelves,
        CancellationToken stop
    )
    {
        if (
            await OpenDraft.Open(db, ready, id, draft, stop) is not { } open
            || await db.Pages.AsNoTracking().FirstOrDefaultAsync(p => p.ListingId == id, stop) is not { } page
        )
            return TypedResults.NotFound();
        var site = await db.Site(stop);
        string Text(string role) =>
            open.Platform.Fields.FirstOrDefault(f => f.Role == role) is { } field
            && open.Copy.GetValueOrDefault(field.Key) is FieldValue.Text text
                ? text.Value.Trim()
                : "";
        var body = RichBody.Read(Text("body"));
        var (derivedTitle, derivedDescription) = (DerivedText.PageTitle(Text("heading")), DerivedText.MetaDescription(body));
        var title = (Text("title") is { Length: > 0 } own ? own : derivedTitle) + site.SuffixOf(page);
        var description = Text("meta") is { Length: > 0 } meta ? meta : derivedDescription;
        var figures = BodyFigures.Of(open.Platform, body, open.Lead, stop);
        var facts = open.Listing.Product.Facts;
        return TypedResults.Ok(
            new PageFigures(
                title,
                Width(open.Platform, "title", title),
                Marks(open, title, stop),
                description,
                Width(open.Platform, "meta", description),
                Marks(open, description, stop),
                derivedTitle,
                derivedDescription,
                site.AddressOf(page.IsHome, Text("slug")),
                await Crumbs(db, page, open.Platform, stop),
                figures.Words,
                figures.LeadUses,
                figures.LeadRate,
                figures.LeadInFirst,
                figures.Outline,
                open.Lead is { } lead ? Modifiers.HeadOf(lead, facts.Words) : "",
                open.Lead is null
                    ? []
                    : await Measured(
                        db,
                        shelves,
                        draft.MarketId,
                        Modifiers.Of(
                            open.Lead,
                            [title[..^site.SuffixOf(page).Length], description, body.Text],
                            facts == new Facts() ? null : facts.Words
                        ),
                        stop
                    )
            )
        );
    }

    private static double Width(Platform platform, string role, string text) =>
        platform.Fields.FirstOrDefault(f => f.Role == role)?.Limit?.FontSize is { } size ? PixelWidth.Of(text, size) : 0;

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
            names.Insert(0, above.TextOf(platform, "menu") is { Length: > 0 } menu ? menu : above.NameOf(platform));
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
