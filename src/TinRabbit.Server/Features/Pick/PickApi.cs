using System.ComponentModel.DataAnnotations;
using System.Text.Json;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using TinRabbit.Core;
using TinRabbit.Core.Measures;
using TinRabbit.Core.Platforms;
using TinRabbit.Core.Words;
using TinRabbit.Server.Listings;
using TinRabbit.Server.Picks;
using TinRabbit.Server.Requests;
using TinRabbit.Server.Shelf;
using TinRabbit.Server.Storage;
using TinRabbit.Server.Undo;

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
        var api = app.MapGroup("/api/products/{id:int}/picks").WithTags("Pick");

        api.MapGet("/", GetPicks).WithName("GetPicks");

        api.MapPost("/", Pick).WithName("Pick").ProducesValidationProblem();

        api.MapPost("/drop", DropPicks).WithName("DropPicks");

        api.MapPut("/order", OrderPicks).WithName("OrderPicks");

        app.MapPut("/api/products/{id:int}/facts", SaveFacts).WithName("SaveFacts").WithTags("Pick").ProducesValidationProblem();

        app.MapIdeas();
        app.MapLanguage();
    }

    private static async Task<Ok<PicksView>> GetPicks(int id, string marketId, TinContext db, Shelves shelves, CancellationToken stop)
    {
        var picks = await shelves.PicksOf(db, id, marketId, stop);
        var undo = await db
            .Changes.Where(c => (c.ProductId == id || c.ProductId == null) && c.UndoneAt == null)
            .OrderByDescending(c => c.Id)
            .Select(c => c.What)
            .FirstOrDefaultAsync(stop);
        var facts = await db.FactsOf(id, stop);
        var demands = PickDemand.Assume([.. picks.Select(Wanted)]);
        var avoided = (await db.AvoidedInShop(stop)).ToDictionary(a => Tokens.Key(a.Text));
        return TypedResults.Ok(
            new PicksView([.. picks.Select((p, i) => View(p, demands[i], facts, avoided))], undo, await db.StatisticsOf(marketId, stop))
        );
    }

    private static async Task<Results<Ok<Changed>, Conflict<NoteConflict>, NotFound>> Pick(
        int id,
        PickRequest request,
        TinContext db,
        ChangeLog changes,
        CancellationToken stop
    )
    {
        if (!await db.Products.AnyAsync(p => p.Id == id, stop))
            return TypedResults.NotFound();
        var (keys, facts) = (Keys(request.Texts), await db.FactsOf(id, stop));
        var picks = await db.Picks.Where(p => p.ProductId == id).ToListAsync(stop);
        if (picks.Count + keys.Keys.Except(picks.Select(p => p.Key)).Count() is > Bounds.Picks and var all)
            throw new InvalidInputException([new("texts", $"The product would have {all:#,0} picks; the limit is {Bounds.Picks:#,0}.")]);
        var touched = new List<(string Key, PickState? Before)>();
        var last = picks.Count == 0 ? 0 : picks.Max(p => p.Order);
        var byKey = picks.ToDictionary(p => p.Key);
        var saidBy = request.SaidBy is { Count: > 0 } said
            ? request
                .Texts.Select((t, i) => (Key: Tokens.Key(t), By: said[Math.Min(i, said.Count - 1)]))
                .DistinctBy(s => s.Key)
                .ToDictionary(s => s.Key, s => s.By)
            : [];
        foreach (var (key, text) in keys)
        {
            var pick = byKey.GetValueOrDefault(key);
            var before = pick is null ? null : PickState.Of(pick);
            pick ??= db
                .Picks.Add(
                    new()
                    {
                        ProductId = id,
                        Key = key,
                        Text = text,
                        Source = request.Source ?? "",
                        SaidBy = saidBy.GetValueOrDefault(key, ""),
                        Language = request.Language ?? "",
                        Fit = FitByFacts.Of(text, facts),
                        Order = ++last,
                    }
                )
                .Entity;
            (pick.Fit, pick.FitByHand) = (request.Fit ?? pick.Fit, pick.FitByHand || request.Fit is not null);
            pick.Home = request.Home ?? pick.Home;
            var note = request.Note ?? pick.Note;
            var result = Versioned.Apply(
                pick.NoteRevision,
                request.NoteRevision,
                note == pick.Note,
                () => (pick.Note, pick.NoteRevision) = (note, pick.NoteRevision + 1)
            );
            if (result is SaveResult.Conflict)
                return TypedResults.Conflict(new NoteConflict(pick.Text, pick.Note, pick.NoteRevision));

            // A fit that is chosen as it was stays chosen, and is no change to tell of.
            if (before is null || before with { FitByHand = pick.FitByHand } != PickState.Of(pick))
                touched.Add((key, before));
        }

        return TypedResults.Ok(await Keep(db, changes, id, touched, Sentence(request, touched, keys), stop));
    }

    private static async Task<Ok<Changed>> DropPicks(int id, DropRequest request, TinContext db, ChangeLog changes, CancellationToken stop)
    {
        var keys = Keys(request.Texts);
        var gone = (await db.Picks.Where(p => p.ProductId == id).ToListAsync(stop)).Where(p => keys.ContainsKey(p.Key)).ToList();
        db.Picks.RemoveRange(gone);
        return TypedResults.Ok(
            await Keep(
                db,
                changes,
                id,
                [.. gone.Select(p => (p.Key, (PickState?)PickState.Of(p)))],
                PickMessages.RemovedPicks([.. gone.Select(p => p.Text)]),
                stop
            )
        );
    }

    private static async Task<Ok<Changed>> OrderPicks(
        int id,
        OrderRequest request,
        TinContext db,
        ChangeLog changes,
        CancellationToken stop
    )
    {
        var picks = (await db.Picks.Where(p => p.ProductId == id).ToListAsync(stop)).OrderBy(p => p.Order).ToList();
        var place = request.Keys.Select((k, i) => (k, i)).DistinctBy(k => k.k).ToDictionary(k => k.k, k => k.i);
        var touched = new List<(string, PickState?)>();
        foreach (var (pick, order) in picks.OrderBy(p => place.GetValueOrDefault(p.Key, int.MaxValue)).Select((p, i) => (p, i + 1)))
        {
            if (pick.Order != order)
                touched.Add((pick.Key, PickState.Of(pick)));
            pick.Order = order;
        }

        return TypedResults.Ok(await Keep(db, changes, id, touched, PickMessages.ReorderedPicks, stop));
    }

    private static async Task<Results<Ok<Changed>, Conflict<FactsConflict>, NotFound>> SaveFacts(
        int id,
        FactsRequest request,
        TinContext db,
        ChangeLog changes,
        CancellationToken stop
    )
    {
        if (await db.Products.FindAsync([id], stop) is not { } product)
            return TypedResults.NotFound();
        var before = product.Facts;
        var result = Versioned.Apply(
            product.Revision,
            request.Revision,
            JsonSerializer.Serialize(before) == JsonSerializer.Serialize(request.Facts),
            () => (product.Facts, product.Revision) = (request.Facts, product.Revision + 1)
        );
        if (result is SaveResult.Conflict)
            return TypedResults.Conflict(new FactsConflict(product.Facts, product.Revision));
        if (result is SaveResult.Unchanged)
            return TypedResults.Ok(new Changed(null, null, product.Revision));
        var fits = await SetFits(db, product, stop);
        var changed = await changes.Save(
            PickMessages.ChangedFacts(fits.Texts),
            new(Screen.Pick, id),
            [new ProductState(id, before, fits.Before)],
            stop
        );
        return TypedResults.Ok(changed with { Revision = product.Revision });
    }

    // Sets the fits again that the seller has not chosen.
    private static async Task<(Dictionary<string, PickState?> Before, IReadOnlyList<string> Texts)> SetFits(
        TinContext db,
        ProductRow product,
        CancellationToken stop
    )
    {
        var facts = await db.FactsOf(product.Facts, stop);
        var (before, texts) = (new Dictionary<string, PickState?>(), new List<string>());
        foreach (
            var pick in await db
                .Picks.Where(p => p.ProductId == product.Id && !p.FitByHand && p.Language == "")
                .OrderBy(p => p.Order)
                .ToListAsync(stop)
        )
        {
            var fit = FitByFacts.Of(pick.Text, facts);
            if (fit == pick.Fit)
                continue;
            before[pick.Key] = PickState.Of(pick);
            pick.Fit = fit;
            texts.Add(pick.Text);
        }

        return (before, texts);
    }

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

    private static Dictionary<string, string> Keys(IReadOnlyList<string> texts)
    {
        var keys = new Dictionary<string, string>();
        for (var i = 0; i < texts.Count; i++)
        {
            var key = Tokens.Key(texts[i]);
            if (key.Length == 0)
                throw new InvalidInputException([new($"texts[{i}]", $"“{texts[i]}” contains no word.")]);
            keys.TryAdd(key, texts[i].Trim());
        }

        return keys;
    }

    private static async Task<Changed> Keep(
        TinContext db,
        ChangeLog changes,
        int id,
        List<(string Key, PickState? Before)> touched,
        string what,
        CancellationToken stop
    )
    {
        if (touched.Count == 0)
        {
            await db.SaveChangesAsync(stop);
            return new(null);
        }

        return await changes.Save(
            what,
            new(Screen.Pick, id),
            [new ProductState(id, null, touched.ToDictionary(t => t.Key, t => t.Before))],
            stop
        );
    }

    private static string Sentence(PickRequest request, List<(string Key, PickState? Before)> touched, Dictionary<string, string> keys)
    {
        string[] texts = [.. touched.Select(t => keys[t.Key])];
        return request.Home == Home.Avoid ? PickMessages.MarkedAsAvoid(texts)
            : touched.Any(t => t.Before is null) ? PickMessages.Picked(texts)
            : request.Home is { } home ? PickMessages.Moved(texts, home)
            : request.Fit is { } fit ? PickMessages.ChangedFit(texts, fit)
            : PickMessages.ChangedNote(texts);
    }
}
