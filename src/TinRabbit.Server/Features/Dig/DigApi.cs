using TinRabbit.Server.Listings;
using TinRabbit.Server.Picks;
using TinRabbit.Server.Shelf;

namespace TinRabbit.Server.Features.Dig;

/// <summary>A term to search for.</summary>
/// <param name="MarketId">Where.</param>
/// <param name="Text">The head term.</param>
/// <param name="ParentId">The step of the trail it was clicked in; null where it was typed.</param>
public sealed record DigRequest(string MarketId, [Term] string Text, int? ParentId);

/// <summary>One part of the results of a dig. A row replaces an earlier one with the same key.</summary>
/// <param name="StepId">Its step in the trail.</param>
/// <param name="Key">The head term's words.</param>
/// <param name="Doing">The next step, as a sentence; null at the end.</param>
/// <param name="Done">Steps done.</param>
/// <param name="Of">Steps in all.</param>
/// <param name="Rows">The term, then suggestions in the market's order, then what sellers use.</param>
/// <param name="Norm">Statistics of the market's shelf, the basis of headroom and competition bands.</param>
/// <param name="Known">What is known of the term in this market; null until everything is there.</param>
public sealed record DigPart(
    int StepId,
    string Key,
    string? Doing,
    int Done,
    int Of,
    IReadOnlyList<DugTerm> Rows,
    MarketStatistics Norm,
    DugSources? Known = null
);

/// <summary>What is known of a term in a market.</summary>
/// <param name="HasSuggestions">Whether what the search box offers is known.</param>
/// <param name="Suggested">When the seller saw what it offers; null where the source was asked, or where it is unknown.</param>
/// <param name="Results">What the search finds; null where that is unknown.</param>
public sealed record DugSources(bool HasSuggestions, SeenAt? Suggested, DugResults? Results);

/// <summary>What a search finds.</summary>
/// <param name="Found">Listings in all; null where the market does not say it.</param>
/// <param name="Looked">Listings that were read, ads with them.</param>
/// <param name="Ads">How many of them are ads.</param>
/// <param name="Seen">When the seller saw them; null where the source was asked.</param>
public sealed record DugResults(long? Found, int Looked, int Ads, SeenAt? Seen);

/// <summary>A term that a dig found.</summary>
/// <param name="Text">As typed.</param>
/// <param name="Key">Its words.</param>
/// <param name="Typed">Place among the suggestions, from 1; null where it was not suggested.</param>
/// <param name="Related">Place among the related searches of its results, from 1; null where it is none of them.</param>
/// <param name="Sellers">How the top 100 use it; null where none does, or before they were looked at.</param>
/// <param name="Numbers">Its numbers in the market.</param>
public sealed record DugTerm(string Text, string Key, int? Typed, int? Related, SellersUse? Sellers, Measured Numbers);

/// <summary>One step of a trail.</summary>
/// <param name="Picked">How many of the product's picks were taken from there.</param>
public sealed record TrailStep(int Id, string Text, int? ParentId, int Picked);

internal static class DigApi
{
    public static void MapDig(this IEndpointRouteBuilder app)
    {
        var api = app.MapGroup("/api");
        api.MapPost("/products/{id:int}/dig", Dig).Produces<DigPart>(200, "application/x-ndjson").DisableRequestTimeout();
        api.MapGet("/products/{id:int}/trail/{marketId}", GetTrail);
        api.MapDelete("/products/{id:int}/trail/{stepId:int}", DeleteStep);
        api.MapGet("/markets/{marketId}/suggest", Suggest);
        api.MapGet("/products/{id:int}/lookups/{marketId}", GetLookUps);
    }

    private static async Task<NdJson<DigPart>> Dig(int id, DigRequest request, TinContext db, TermDig digging, CancellationToken stop)
    {
        if (!await db.Products.AnyAsync(p => p.Id == id, stop))
            throw new NotThereException();
        if (Tokens.Key(request.Text).Length == 0)
            throw new InvalidInputException([new("text", "Enter a term with at least one word.")]);
        // What was found so far is saved and shown; the last line says why there is no more.
        return new(digging.Run(id, request, stop));
    }

    private static async Task<List<TrailStep>> GetTrail(int id, string marketId, TinContext db, CancellationToken stop)
    {
        var all = await db
            .Digs.AsNoTracking()
            .IgnoreQueryFilters()
            .Where(d => d.ProductId == id && d.MarketId == marketId)
            .OrderBy(d => d.Id)
            .ToDictionaryAsync(d => d.Id, stop);
        var steps = all.Values.Where(s => s.DeletedAt is null);
        var picked = (await db.Picks.Where(p => p.ProductId == id && p.Home != Home.Avoid).Select(p => p.Source).ToListAsync(stop))
            .CountBy(s => s)
            .ToDictionary();
        return steps.Select(s => new TrailStep(s.Id, s.Text, ParentOf(s, all), picked.GetValueOrDefault(s.Text))).ToList();
    }

    private static async Task<IReadOnlyList<string>> Suggest(string marketId, string typed, IMarket market, CancellationToken stop) =>
        await market.Suggest(marketId, typed, 8, stop) ?? [];

    private static async Task<LookUpsView> GetLookUps(int id, string marketId, TinContext db, LookUps lookUps, CancellationToken stop) =>
        await lookUps.Of(await db.Products.AsNoTracking().FirstOrDefaultAsync(p => p.Id == id, stop).OrNotThere(), marketId, stop);

    // Its children stay, and show under the step above until it comes back.
    private static async Task<Changed> DeleteStep(int id, int stepId, TinContext db, ChangeLog changes, CancellationToken stop)
    {
        var step = await db.Digs.FirstOrDefaultAsync(d => d.Id == stepId && d.ProductId == id, stop).OrNotThere();
        return await changes.Delete(ChangeMessages.Deleted("search", step.Text), new(Screen.Dig, id), [step], stop);
    }

    // The nearest step above that is still there.
    private static int? ParentOf(DigRow step, Dictionary<int, DigRow> all)
    {
        var above = step;
        do above = above.ParentId is { } id ? all.GetValueOrDefault(id) : null;
        while (above?.DeletedAt is not null);
        return above?.Id;
    }
}
