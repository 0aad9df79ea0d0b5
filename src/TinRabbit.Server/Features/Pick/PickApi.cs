using TinRabbit.Server.Listings;
using TinRabbit.Server.Picks;
using TinRabbit.Server.Shelf;

namespace TinRabbit.Server.Features.Pick;

/// <summary>A pick with its numbers in one market.</summary>
/// <param name="Demand">volume × fit; null where the volume is unknown.</param>
/// <param name="Assumed">What it counts for where its volume is unknown; null where that is known.</param>
/// <param name="Worth">demand × fit × (0.5 + headroom / 200).</param>
/// <param name="SaidBy">Where it was found.</param>
/// <param name="Language">BCP 47 tag of a second language; empty for the listing's own.</param>
/// <param name="Family">The key shared by all spelling variants.</param>
/// <param name="Claims">Its claims that the facts lack.</param>
/// <param name="AvoidedFor">Which other product of the shop avoids it, and why; null where none does.</param>
public sealed record PickView(
    string Text,
    string Key,
    Fit Fit,
    Home Home,
    string Note,
    string Source,
    string SaidBy,
    string Language,
    string Family,
    IReadOnlyList<Claim> Claims,
    string? AvoidedFor,
    Measured Numbers,
    double? Assumed,
    double Demand,
    double Worth,
    int NoteRevision
);

/// <summary>A product's picks, and the change that undo would revert.</summary>
public sealed record PicksView(IReadOnlyList<PickView> Picks, string? Undo, MarketStatistics Norm);

/// <summary>Terms to pick, or picks to change; null leaves a value unchanged.</summary>
/// <param name="Texts">The terms.</param>
/// <param name="Source">The head term they were found under, for new ones.</param>
/// <param name="SaidBy">Where new ones were found; one text for all, or one for each.</param>
/// <param name="Language">Second language they are kept for, for new ones.</param>
/// <param name="NoteRevision">The <see cref="PickView.NoteRevision"/> that the note was written from; null writes over whatever is there.</param>
public sealed record PickRequest(
    [Term, MaxLength(Bounds.TermsAtOnce)] IReadOnlyList<string> Texts,
    [MaxLength(Bounds.TermLength)] string? Source,
    Fit? Fit,
    Home? Home,
    [MaxLength(Bounds.NoteLength)] string? Note,
    [MaxLength(Bounds.TermsAtOnce), EachMaxLength(Bounds.NameLength)] IReadOnlyList<string>? SaidBy = null,
    [MaxLength(20)] string? Language = null,
    int? NoteRevision = null
);

/// <summary>The note was changed in another window meanwhile: what it is now.</summary>
public sealed record NoteConflict(string Text, string Note, int NoteRevision);

/// <summary>New facts.</summary>
/// <param name="Revision">The <see cref="FactsConflict.Revision"/> of the facts that they were made from.</param>
public sealed record FactsRequest(Facts Facts, int Revision);

/// <summary>The facts were changed in another window meanwhile: what they are now.</summary>
public sealed record FactsConflict(Facts Facts, int Revision);

/// <summary>Picks to remove.</summary>
public sealed record DropRequest([Term, MaxLength(Bounds.TermsAtOnce)] IReadOnlyList<string> Texts);

/// <summary>The picks in a new order, by key.</summary>
public sealed record OrderRequest([Term] IReadOnlyList<string> Keys);

internal static class PickApi
{
    public static void MapPick(this IEndpointRouteBuilder app)
    {
        var api = app.MapGroup("/api/products/{id:int}/picks");
        api.MapGet("/", GetPicks);
        api.MapPost("/", Pick).RetriesRaces();
        api.MapPost("/drop", DropPicks).RetriesRaces();
        api.MapPut("/order", OrderPicks).RetriesRaces();
        app.MapPut("/api/products/{id:int}/facts", SaveFacts).RetriesRaces();
        app.MapIdeas();
        app.MapLanguage();
    }

    private static async Task<PicksView> GetPicks(int id, string marketId, TinContext db, Shelves shelves, CancellationToken stop)
    {
        var picks = await shelves.PicksOf(db, id, marketId, stop);
        var undo = await db
            .Changes.Where(c => c.Screen == Screen.Pick && c.ProductId == id && c.UndoneAt == null)
            .OrderByDescending(c => c.Id)
            .Select(c => c.What)
            .FirstOrDefaultAsync(stop);
        var facts = await db.FactsOf(id, stop);
        var demands = PickDemand.Assume([.. picks.Select(Wanted)]);
        var avoided = (await db.AvoidedInShop(stop)).ToDictionary(a => Tokens.Key(a.Text));
        return new PicksView([.. picks.Select((p, i) => View(p, demands[i], facts, avoided))], undo, await db.StatisticsOf(marketId, stop));
    }

    private static async Task<Results<Ok<Changed>, Conflict<NoteConflict>>> Pick(
        int id,
        PickRequest request,
        TinContext db,
        PickEditor editor,
        CancellationToken stop
    )
    {
        if (!await db.Products.AnyAsync(p => p.Id == id, stop))
            throw new NotThereException();
        var (changed, conflict) = await editor.Pick(id, request, stop);
        return conflict is null ? TypedResults.Ok(changed) : TypedResults.Conflict(conflict);
    }

    private static async Task<Changed> DropPicks(int id, DropRequest request, PickEditor editor, CancellationToken stop) =>
        await editor.Drop(id, request.Texts, stop);

    private static async Task<Changed> OrderPicks(int id, OrderRequest request, PickEditor editor, CancellationToken stop) =>
        await editor.Order(id, request.Keys, stop);

    private static async Task<Results<Ok<Changed>, Conflict<FactsConflict>>> SaveFacts(
        int id,
        FactsRequest request,
        TinContext db,
        PickEditor editor,
        CancellationToken stop
    ) =>
        await db.Products.FindAsync([id], stop) is not { } product ? throw new NotThereException()
        : await editor.SaveFacts(product, request, stop) is { } changed ? TypedResults.Ok(changed)
        : TypedResults.Conflict(new FactsConflict(product.Facts, product.Revision));

    private static WantedTerm Wanted(MeasuredPick p) =>
        new(p.Pick.Text, p.Numbers.Volume, p.Numbers.Competition, p.Numbers.Headroom, p.Pick.Fit)
        {
            Home = p.Pick.Home,
            VolumeBelow = p.Numbers.VolumeBelow,
        };

    private static PickView View(MeasuredPick p, WantedTerm wanted, FactWords facts, Dictionary<string, Avoided> avoided)
    {
        var elsewhere = p.Pick.Home != Home.Avoid && avoided.TryGetValue(p.Pick.Key, out var a) ? a : null;
        return new(
            p.Pick.Text,
            p.Pick.Key,
            p.Pick.Fit,
            p.Pick.Home,
            p.Pick.Note,
            p.Pick.Source,
            p.Pick.SaidBy,
            p.Pick.Language,
            Family.Key(p.Pick.Text),
            p.Pick.Language.Length > 0 ? [] : Facets.Unbacked(p.Pick.Text, facts),
            elsewhere is null ? null : $"{elsewhere.Product}{(elsewhere.Reason.Length > 0 ? ": " + elsewhere.Reason : "")}",
            p.Numbers,
            wanted.Volume is null ? wanted.Assumed : null,
            wanted.Demand(),
            wanted.Worth(),
            p.Pick.NoteRevision
        );
    }
}
