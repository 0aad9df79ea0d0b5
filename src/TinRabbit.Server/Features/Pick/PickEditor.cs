using TinRabbit.Server.Listings;
using TinRabbit.Server.Picks;

namespace TinRabbit.Server.Features.Pick;

/// <summary>Changes the picks of a product, and its facts, by which the fits are set.</summary>
internal sealed class PickEditor(TinContext db, ChangeLog changes)
{
    /// <summary>Picks terms, or changes what is known of picks.</summary>
    /// <returns>The change; or the note that somebody else changed meanwhile, and then nothing is saved.</returns>
    /// <exception cref="InvalidInputException">A term has no word, or there would be too many picks.</exception>
    public async Task<(Changed Changed, NoteConflict? Conflict)> Pick(int productId, PickRequest request, CancellationToken stop)
    {
        var keys = Keys(request.Texts);
        var facts = await db.FactsOf(productId, stop);
        var picks = await db.Picks.Where(p => p.ProductId == productId).ToDictionaryAsync(p => p.Key, stop);
        if (picks.Count + keys.Keys.Except(picks.Keys).Count() is > Bounds.Picks and var all)
            throw new InvalidInputException([new("texts", $"The product would have {all:#,0} picks; the limit is {Bounds.Picks:#,0}.")]);
        var touched = new List<(string Key, PickState? Before)>();
        var last = picks.Values.Select(p => p.Order).DefaultIfEmpty().Max();
        var saidBy = SaidBy(request);
        int? noteRevision = null;
        foreach (var (key, text) in keys)
        {
            var pick = picks.GetValueOrDefault(key);
            var before = pick is null ? null : PickState.Of(pick);
            pick ??= db.Picks.Add(NewPick(productId, key, text, request, saidBy.GetValueOrDefault(key, ""), facts, ++last)).Entity;
            if (Change(pick, request) is SaveResult.Conflict)
                return (new(null), new(pick.Text, pick.Note, pick.NoteRevision));
            noteRevision = request.NoteRevision is null ? null : pick.NoteRevision;
            // A fit that is chosen as it was stays chosen, and is no change to tell of.
            if (before is null || before with { FitByHand = pick.FitByHand } != PickState.Of(pick))
                touched.Add((key, before));
        }

        var changed = await Save(productId, touched, Sentence(request, touched, keys), stop);
        return (changed with { Revision = noteRevision }, null);
    }

    /// <summary>Removes picks.</summary>
    public async Task<Changed> Drop(int productId, IReadOnlyList<string> texts, CancellationToken stop)
    {
        var keys = Keys(texts);
        var gone = (await db.Picks.Where(p => p.ProductId == productId).ToListAsync(stop)).Where(p => keys.ContainsKey(p.Key)).ToList();
        db.Picks.RemoveRange(gone);
        var touched = gone.Select(p => (p.Key, (PickState?)PickState.Of(p))).ToList();
        return await Save(productId, touched, PickMessages.RemovedPicks([.. gone.Select(p => p.Text)]), stop);
    }

    /// <summary>Orders the picks; those that are not named come after the others, as they were.</summary>
    public async Task<Changed> Order(int productId, IReadOnlyList<string> ordered, CancellationToken stop)
    {
        var picks = (await db.Picks.Where(p => p.ProductId == productId).ToListAsync(stop)).OrderBy(p => p.Order).ToList();
        var place = ordered.Select((k, i) => (k, i)).DistinctBy(k => k.k).ToDictionary(k => k.k, k => k.i);
        var touched = new List<(string, PickState?)>();
        foreach (var (pick, order) in picks.OrderBy(p => place.GetValueOrDefault(p.Key, int.MaxValue)).Select((p, i) => (p, i + 1)))
        {
            if (pick.Order != order)
                touched.Add((pick.Key, PickState.Of(pick)));
            pick.Order = order;
        }

        return await Save(productId, touched, PickMessages.ReorderedPicks, stop);
    }

    /// <summary>Saves the facts of a product, and sets the fits again that the seller has not chosen.</summary>
    /// <returns>Null where somebody else changed the product meanwhile.</returns>
    public async Task<Changed?> SaveFacts(ProductRow product, FactsRequest request, CancellationToken stop)
    {
        var before = product.Facts;
        var result = Versioned.Apply(
            product.Revision,
            request.Revision,
            JsonSerializer.Serialize(before) == JsonSerializer.Serialize(request.Facts),
            () => (product.Facts, product.Revision) = (request.Facts, product.Revision + 1)
        );
        if (result is not SaveResult.Saved)
            return result is SaveResult.Conflict ? null : new(null, null, product.Revision);
        var fits = await SetFits(product, stop);
        var changed = await changes.Save(
            PickMessages.ChangedFacts(fits.Texts),
            new(Screen.Pick, product.Id),
            [new ProductState(product.Id, before, fits.Before)],
            stop
        );
        return changed with { Revision = product.Revision };
    }

    private static PickRow NewPick(
        int productId,
        string key,
        string text,
        PickRequest request,
        string saidBy,
        FactWords facts,
        int order
    ) =>
        new()
        {
            ProductId = productId,
            Key = key,
            Text = text,
            Source = request.Source ?? "",
            SaidBy = saidBy,
            Language = request.Language ?? "",
            Fit = FitByFacts.Of(text, facts),
            Order = order,
        };

    private static SaveResult Change(PickRow pick, PickRequest request)
    {
        (pick.Fit, pick.FitByHand) = (request.Fit ?? pick.Fit, pick.FitByHand || request.Fit is not null);
        pick.Home = request.Home ?? pick.Home;
        var note = request.Note ?? pick.Note;
        return Versioned.Apply(
            pick.NoteRevision,
            request.NoteRevision,
            note == pick.Note,
            () => (pick.Note, pick.NoteRevision) = (note, pick.NoteRevision + 1)
        );
    }

    // By key; the last one who is named said all the others.
    private static Dictionary<string, string> SaidBy(PickRequest request) =>
        request.SaidBy is { Count: > 0 } said
            ? request
                .Texts.Select((t, i) => (Key: Tokens.Key(t), By: said[Math.Min(i, said.Count - 1)]))
                .DistinctBy(s => s.Key)
                .ToDictionary(s => s.Key, s => s.By)
            : [];

    // Sets the fits again that the seller has not chosen.
    private async Task<(Dictionary<string, PickState?> Before, IReadOnlyList<string> Texts)> SetFits(
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

    private async Task<Changed> Save(int productId, List<(string Key, PickState? Before)> touched, string what, CancellationToken stop)
    {
        if (touched.Count > 0)
            return await changes.Save(
                what,
                new(Screen.Pick, productId),
                [new ProductState(productId, null, touched.ToDictionary(t => t.Key, t => t.Before))],
                stop
            );
        await db.SaveChangesAsync(stop);
        return new(null);
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
