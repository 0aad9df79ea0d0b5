using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using TinRabbit.Core.Measures;
using TinRabbit.Core.Platforms;
using TinRabbit.Core.Words;
using TinRabbit.Market;
using TinRabbit.Server.Formats;
using TinRabbit.Server.Storage;

namespace TinRabbit.Server.Dig;

/// <summary>A term to look up.</summary>
/// <param name="MarketId">Where.</param>
/// <param name="Text">The head term.</param>
/// <param name="ParentId">The step of the trail it was clicked in; null where it was typed.</param>
public sealed record DigRequest(string MarketId, string Text, int? ParentId);

/// <summary>What a dig found.</summary>
/// <param name="StepId">Its step in the trail.</param>
/// <param name="Key">The head term's words.</param>
/// <param name="Rows">The head term, then what shoppers type, in the market's order.</param>
/// <param name="Norm">What is typical of the market's shelf: headroom and bands are made of it.</param>
public sealed record DigResult(int StepId, string Key, IReadOnlyList<DugTerm> Rows, Norm Norm);

/// <summary>Terms of a market's shelf.</summary>
/// <param name="Rows">The most searched first.</param>
/// <param name="All">How many there are, shown or not.</param>
/// <param name="Norm">What is typical of the shelf.</param>
public sealed record ShelfView(IReadOnlyList<DugTerm> Rows, int All, Norm Norm);

/// <summary>A term that a dig found.</summary>
/// <param name="Text">As typed.</param>
/// <param name="Key">Its words.</param>
/// <param name="Typed">Place among the suggestions, from 1; null where it was not suggested.</param>
/// <param name="Numbers">What the market knows of it.</param>
public sealed record DugTerm(string Text, string Key, int? Typed, Measured Numbers);

/// <summary>One step of a trail.</summary>
/// <param name="Picked">How many of the product's picks were taken from there.</param>
public sealed record TrailStep(int Id, string Text, int? ParentId, int Picked);

/// <summary>Terms pasted onto a market's shelf.</summary>
public sealed record PasteRequest(string Text, string? Source);

/// <summary>What became of a paste.</summary>
/// <param name="Taken">Terms that are now on the shelf.</param>
/// <param name="New">How many of them the shelf did not know.</param>
/// <param name="Bad">Lines that could not be taken, for correction.</param>
public sealed record PasteResult(int Taken, int New, IReadOnlyList<BadLine> Bad);

internal static class DigApi
{
    private const int LongestHead = 200;
    private const int MostShelfRows = 2000;

    public static void MapDig(this IEndpointRouteBuilder app)
    {
        var api = app.MapGroup("/api").WithTags("Dig");

        api.MapPost("/products/{id:int}/dig", async Task<Results<Ok<DigResult>, NotFound>> (int id, DigRequest request, TinContext db, IMarket market, CancellationToken stop) =>
        {
            if (!await db.Products.AnyAsync(p => p.Id == id, stop) || Place(market, request.MarketId) is not { } place)
                return TypedResults.NotFound();
            var head = request.Text.Trim();
            var key = Tokens.Key(head);
            if (key.Length == 0 || head.Length > LongestHead)
                throw new FormatProblems([new("text", key.Length == 0 ? "Type a term with at least one word in it." : $"A term has at most {LongestHead} characters.")]);
            var typed = market.Suggestions(place.Id, key).ToList();
            var terms = await db.Put(place.Id, await Measure(db, market, place.Id, [head, .. typed], stop), stop);
            var norm = await db.NormOf(place.Id, stop);
            var step = await db.Digs.FirstOrDefaultAsync(d => d.ProductId == id && d.MarketId == place.Id && d.Key == key, stop);
            if (step is null)
            {
                var parent = request.ParentId is { } p && await db.Digs.AnyAsync(d => d.Id == p && d.ProductId == id, stop) ? request.ParentId : null;
                step = db.Digs.Add(new() { ProductId = id, MarketId = place.Id, Text = head, Key = key, ParentId = parent }).Entity;
            }

            step.At = DateTime.UtcNow;
            await db.SaveChangesAsync(stop);
            var places = typed.Select((text, i) => (Key: Tokens.Key(text), Place: i + 1)).DistinctBy(t => t.Key).ToDictionary(t => t.Key, t => t.Place);
            return TypedResults.Ok(new DigResult(step.Id, key, [.. places.Keys.Prepend(key).Distinct().Select(k =>
                Row(terms[k], norm) with { Typed = places.TryGetValue(k, out var at) ? at : null })], norm));
        }).WithName("Dig").ProducesValidationProblem();

        api.MapGet("/products/{id:int}/trail/{marketId}", async (int id, string marketId, TinContext db, CancellationToken stop) =>
        {
            var steps = await db.Digs.AsNoTracking().Where(d => d.ProductId == id && d.MarketId == marketId).OrderBy(d => d.Id).ToListAsync(stop);
            var picked = (await db.Picks.Where(p => p.ProductId == id && p.Home != Home.Avoid).Select(p => p.Source).ToListAsync(stop)).CountBy(s => s).ToDictionary();
            return TypedResults.Ok(steps.Select(s => new TrailStep(s.Id, s.Text, s.ParentId, picked.GetValueOrDefault(s.Text))).ToList());
        }).WithName("GetTrail");

        api.MapDelete("/products/{id:int}/trail/{stepId:int}", async (int id, int stepId, TinContext db, CancellationToken stop) =>
        {
            var steps = await db.Digs.Where(d => d.ProductId == id).ToListAsync(stop);
            if (steps.FirstOrDefault(s => s.Id == stepId) is { } gone)
            {
                foreach (var child in steps.Where(s => s.ParentId == stepId))
                    child.ParentId = gone.ParentId;
                db.Digs.Remove(gone);
                await db.SaveChangesAsync(stop);
            }

            return TypedResults.NoContent();
        }).WithName("ForgetStep");

        api.MapPost("/markets/{marketId}/paste", async Task<Results<Ok<PasteResult>, NotFound>> (string marketId, PasteRequest request, TinContext db, IMarket market, CancellationToken stop) =>
        {
            if (Place(market, marketId) is null)
                return TypedResults.NotFound();
            var (pasted, bad) = PastedTerms.Read(request.Text);
            var source = request.Source?.Trim() is { Length: > 0 } named ? named : "pasted";
            var before = await db.Terms.CountAsync(t => t.MarketId == marketId, stop);
            var terms = await db.Put(marketId, [.. pasted.Select(p => new Found(p.Text, p.Volume is null && p.Competition is null ? null
                : new ReadingRow { Volume = p.Volume, Competition = p.Competition, Source = source, TakenAt = DateTime.UtcNow }))], stop);
            var added = await db.Terms.CountAsync(t => t.MarketId == marketId, stop) - before;
            return TypedResults.Ok(new PasteResult(terms.Count, added, bad));
        }).WithName("PasteTerms");

        api.MapGet("/markets/{marketId}/shelf", async (string marketId, string? contains, TinContext db, CancellationToken stop) =>
        {
            var terms = db.Terms.AsNoTracking().Include(t => t.Reading).Where(t => t.MarketId == marketId);
            foreach (var word in Tokens.Of(contains ?? ""))
                terms = terms.Where(t => t.Key.Contains(word.Word));
            var norm = await db.NormOf(marketId, stop);
            var rows = await terms.OrderByDescending(t => t.Reading!.Volume).ThenBy(t => t.Key).Take(MostShelfRows).ToListAsync(stop);
            return TypedResults.Ok(new ShelfView([.. rows.Select(t => Row(t, norm))], await terms.CountAsync(stop), norm));
        }).WithName("GetShelf");

        api.MapGet("/markets/{marketId}/suggest", (string marketId, string typed, IMarket market) =>
            TypedResults.Ok(Place(market, marketId) is null ? [] : market.Suggest(marketId, typed, 8))).WithName("Suggest");
    }

    // Asks the market only for what the shelf has no fresh reading of.
    private static async Task<List<Found>> Measure(TinContext db, IMarket market, string marketId, IReadOnlyList<string> texts, CancellationToken stop)
    {
        var fresh = DateTime.UtcNow.AddDays(-30);
        var keys = texts.Select(Tokens.Key).ToHashSet();
        var known = new HashSet<string>();
        foreach (var some in keys.Chunk(400))
            known.UnionWith(await db.Terms.Where(t => t.MarketId == marketId && some.Contains(t.Key) && t.Reading != null && t.Reading.TakenAt > fresh).Select(t => t.Key).ToListAsync(stop));
        return [.. texts.Select(text => new Found(text, known.Contains(Tokens.Key(text)) ? null : market.Read(marketId, text)))];
    }

    private static DugTerm Row(TermRow term, Norm norm) => new(term.Text, term.Key, null, Measured.Of(term.Reading, norm));

    private static MarketPlace? Place(IMarket market, string id) => market.Places.FirstOrDefault(p => p.Id == id);
}
