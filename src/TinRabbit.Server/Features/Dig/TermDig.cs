using System.Runtime.CompilerServices;
using TinRabbit.Server.Recordings;
using TinRabbit.Server.Shelf;

namespace TinRabbit.Server.Features.Dig;

/// <summary>Digs: asks a market what it suggests for a term letter by letter, then what its sellers use, and measures it all.</summary>
internal sealed class TermDig(TinContext db, IMarket market, Shelves shelves)
{
    private const int TopResults = 100;
    private const int MostSellersTerms = 60;

    // Suggestions are asked for in a few portions, so that each is saved and shown at once.
    private const int AllSteps = Walk.Steps + 1;
    private const int StepsAtOnce = 4;

    /// <summary>Digs for a term, part by part.</summary>
    public async IAsyncEnumerable<DigPart> Run(int productId, DigRequest request, [EnumeratorCancellation] CancellationToken stop)
    {
        var (marketId, head, key) = (request.MarketId, request.Text.Trim(), Tokens.Key(request.Text));
        var dug = new Dug(key, head);
        if (!market.IsConnected)
        {
            // Nobody is asked: what the seller brought in is there at once.
            foreach (var text in await market.Suggestions(marketId, key, stop))
                dug.AddTyped(text);
            yield return await SellersPart(marketId, await Step(productId, request, key, stop), dug, stop);
            yield break;
        }

        var step = 0;
        await using var walk = market.WalkAlphabet(marketId, key, stop).GetAsyncEnumerator(stop);
        for (var done = 0; done < Walk.Steps; )
        {
            var some = new List<string>();
            // What the box offers for the head alone comes first, by itself.
            for (var until = done == 0 ? 1 : Math.Min(Walk.Steps, done + StepsAtOnce); done < until && await walk.MoveNextAsync(); done++)
                some.AddRange(walk.Current.Where(dug.AddTyped).Select(Tokens.Key));
            if (done == 1)
                some.Insert(0, key);
            var (rows, norm) = await Rows(marketId, dug, [.. some.Distinct()], settle: false, stop);
            if (step == 0)
                step = await Step(productId, request, key, stop);
            var doing = done < Walk.Steps ? DigMessages.Suggesting(head, $"{Walk.Letter(done)}") : DigMessages.ReadingSellers;
            yield return new(step, key, doing, done, AllSteps, rows, norm);
        }

        yield return await SellersPart(marketId, step, dug, stop);
    }

    // The terms that sellers use, and the market's statistics now that everything is on the shelf.
    private async Task<DigPart> SellersPart(string marketId, int step, Dug dug, CancellationToken stop)
    {
        var page = await market.Search(marketId, dug.Key, TopResults, stop);
        dug.AddRelated(page?.Related ?? []);
        foreach (var text in page is null ? [] : SellersUse.TermsOf(page, MostSellersTerms))
            dug.Texts.TryAdd(Tokens.Key(text), text);
        var all = dug.Texts.Keys.ToList();
        var used = page is null
            ? []
            : all.Zip(SellersUse.Of(page, all.Select(k => dug.Texts[k]))).ToDictionary(u => u.First, u => u.Second);
        var (rows, settled) = await Rows(marketId, dug, all, settle: true, stop);
        return new(
            step,
            dug.Key,
            null,
            AllSteps,
            AllSteps,
            [.. rows.Select(r => r with { Sellers = used.GetValueOrDefault(r.Key) })],
            settled,
            new(
                market.IsConnected || dug.Places.Count > 0,
                await SeenOf(marketId, dug.Key, stop),
                page is null ? null : new(page.Found, page.Results.Count, page.Results.Count(r => r.IsAd), page.Seen)
            )
        );
    }

    // When the seller saw what is offered for a term.
    private async Task<SeenAt?> SeenOf(string marketId, string key, CancellationToken stop) =>
        market.IsConnected
            ? null
            : await db
                .Recordings.Where(r => r.MarketId == marketId && r.Kind == RecordingKind.Suggestions && r.Key == key)
                .OrderByDescending(r => r.Day)
                .ThenByDescending(r => r.Id)
                .Select(r => new SeenAt(r.Day, r.Source))
                .FirstOrDefaultAsync(stop);

    private async Task<(List<DugTerm>, MarketStatistics)> Rows(
        string marketId,
        Dug dug,
        List<string> keys,
        bool settle,
        CancellationToken stop
    )
    {
        var terms = await shelves.Measure(db, marketId, [.. keys.Select(k => dug.Texts[k])], stop, settle);
        var known = await shelves.MeasuredOf(db, marketId, terms.Values, stop);
        return (
            [
                .. keys.Select(key => new DugTerm(
                    terms[key].Text,
                    key,
                    dug.Places.TryGetValue(key, out var place) ? place : null,
                    dug.Related.TryGetValue(key, out var related) ? related : null,
                    null,
                    known[key].Numbers
                )),
            ],
            await shelves.Query(db, marketId, shelf => shelf.Norm, stop)
        );
    }

    private async Task<int> Step(int productId, DigRequest request, string key, CancellationToken stop)
    {
        var step = await db.Digs.FirstOrDefaultAsync(d => d.ProductId == productId && d.MarketId == request.MarketId && d.Key == key, stop);
        if (step is null)
        {
            var parent =
                request.ParentId is { } p && await db.Digs.AnyAsync(d => d.Id == p && d.ProductId == productId, stop)
                    ? request.ParentId
                    : null;
            step = db
                .Digs.Add(
                    new()
                    {
                        ProductId = productId,
                        MarketId = request.MarketId,
                        Text = request.Text.Trim(),
                        Key = key,
                        ParentId = parent,
                    }
                )
                .Entity;
        }

        step.At = db.Now;
        await db.SaveChangesAsync(stop);
        return step.Id;
    }

    /// <summary>What was found so far, by key.</summary>
    private sealed class Dug(string key, string head)
    {
        public string Key { get; } = key;

        /// <summary>Each term as shoppers type it.</summary>
        public Dictionary<string, string> Texts { get; } = new(StringComparer.Ordinal) { [key] = head };

        /// <summary>The place of each term that the box offered, from 1.</summary>
        public Dictionary<string, int> Places { get; } = new(StringComparer.Ordinal);

        /// <summary>The place of each related search that the results offered, from 1.</summary>
        public Dictionary<string, int> Related { get; } = new(StringComparer.Ordinal);

        /// <summary>Adds the related searches of the results.</summary>
        public void AddRelated(IEnumerable<string> texts)
        {
            foreach (var text in texts)
                if (Tokens.Key(text) is { Length: > 0 and <= Bounds.TermLength } key && Related.TryAdd(key, Related.Count + 1))
                    Texts.TryAdd(key, text);
        }

        /// <summary>Adds a term that the box offered; false where it is there already.</summary>
        public bool AddTyped(string text)
        {
            var key = Tokens.Key(text);
            if (key.Length == 0 || !Places.TryAdd(key, Places.Count + 1))
                return false;
            Texts.TryAdd(key, text);
            return true;
        }
    }
}
