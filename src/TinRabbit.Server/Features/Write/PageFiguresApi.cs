using TinRabbit.Core.Edits;
using TinRabbit.Server.Hosting;
using TinRabbit.Server.Listings;
using TinRabbit.Server.Picks;
using TinRabbit.Server.Shelf;

namespace TinRabbit.Server.Features.Write;

/// <summary>Figures of a page's draft.</summary>
/// <param name="Title">The page title with what the site adds; derived where the page has none of its own.</param>
/// <param name="Description">The meta description; derived where the page has none of its own.</param>
/// <param name="DerivedTitle">What a shop system would show as page title.</param>
/// <param name="DerivedDescription">What it would show as meta description.</param>
/// <param name="Crumbs">Names of the pages that it is inside, from the top.</param>
/// <param name="LeadRate">Occurrences of the lead per 100 words.</param>
/// <param name="Head">The head noun of the lead; empty without a lead.</param>
public sealed record PageFigures(
    ShownText Title,
    ShownText Description,
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

/// <summary>A text as a results page shows it.</summary>
/// <param name="Pixels">Its width.</param>
/// <param name="Marks">Where the lead's words are in it.</param>
/// <param name="Wide">How much of it shows on a wide screen, in UTF-16 units.</param>
/// <param name="Phone">How much of it shows at a phone's width.</param>
public sealed record ShownText(string Text, double Pixels, IReadOnlyList<TextMark> Marks, int Wide, int Phone);

/// <summary>A stretch of a text, in UTF-16 units.</summary>
public sealed record TextMark(int Start, int Length);

/// <summary>A modifier of the head noun with its demand.</summary>
/// <param name="Volume">Searches a month of modifier and head; null when unknown.</param>
/// <param name="IsUsed">Whether the page has it; otherwise the facts allow it.</param>
public sealed record ModifierView(string Word, string Term, long? Volume, bool IsUsed);

/// <summary>A modifier to put into a page's text.</summary>
/// <param name="Fields">The draft that it goes into; null for the page as it is saved.</param>
/// <param name="Head">The noun that it narrows.</param>
public sealed record ModifierRequest(
    string MarketId,
    JsonElement? Fields,
    [MaxLength(Bounds.TermLength)] string Word,
    [MaxLength(Bounds.TermLength)] string Head
);

internal static class PageFiguresApi
{
    public static void MapPageFigures(this IEndpointRouteBuilder app)
    {
        app.MapPost("/api/listings/{id:int}/page", GetPageFigures).WithRequestTimeout(ProblemAnswers.Computes);
        app.MapPost("/api/listings/{id:int}/page/modifier", PutModifier);
    }

    private static async Task<FixView> PutModifier(
        int id,
        ModifierRequest request,
        TinContext db,
        PreparedPicksCache ready,
        CancellationToken stop
    )
    {
        var open = await OpenDraft.Open(db, ready, id, new(request.MarketId, request.Fields), stop).OrNotThere();
        var term = $"{request.Word} {request.Head}";
        if (Insertion.Of(open.Platform, open.Copy, request.Word, request.Head) is not { } inserted)
            throw new InvalidInputException([new("word", $"Neither the title nor the description has room for “{term}”.")]);
        return new FixView(
            $"Inserted “{term}” into {inserted.Field.Label}",
            inserted.Field.Key,
            CopyJson.WriteValue(new FieldValue.Text(inserted.Text))
        );
    }

    private static async Task<PageFigures> GetPageFigures(
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
            throw new NotThereException();
        return await PageFigureViews.Of(open, page, draft.MarketId, db, shelves, stop);
    }
}
