using TinRabbit.Server.Listings;
using TinRabbit.Server.Picks;
using TinRabbit.Server.Shelf;

namespace TinRabbit.Server.Features.Dig;

/// <summary>Combines a term, and other names for it, with words that describe the product.</summary>
internal sealed class TermGrid(TinContext db, Shelves shelves)
{
    private const int MostHeads = 4;
    private const int WordsOfFacet = 12;

    /// <summary>The grid of a term in a market.</summary>
    /// <param name="product">The product.</param>
    /// <param name="marketId">The market.</param>
    /// <param name="key">The term's key.</param>
    /// <param name="stop">Stops waiting.</param>
    public async Task<GridView> Load(ProductRow product, string marketId, string key, CancellationToken stop)
    {
        var heads = await HeadsOf(product.Id, marketId, key, stop);
        var facts = await db.FactsOf(product.Facts, stop);
        var rows = Enum.GetValues<Facet>().ToDictionary(f => f, f => WordsFor(f, facts, key));
        var combined = rows.Values.SelectMany(r => r).SelectMany(r => heads.SelectMany(h => Orders(r.Word, h))).Distinct();
        var typed = await shelves.MeasureTyped(db, marketId, [.. combined], stop);
        return await shelves.Query(
            db,
            marketId,
            shelf => new GridView(heads, [.. rows.Select(r => new GridFacet(r.Key, Rows(r.Value, heads, typed, shelf)))]),
            stop
        );
    }

    // Its other forms, then what else was looked up for this product here that is the same kind of thing.
    private async Task<List<string>> HeadsOf(int productId, string marketId, string key, CancellationToken stop)
    {
        var family = await shelves.MeasureTyped(db, marketId, Family.Forms(key), stop);
        var before = await db
            .Digs.AsNoTracking()
            .Where(d => d.ProductId == productId && d.MarketId == marketId)
            .OrderByDescending(d => d.At)
            .Select(d => d.Key)
            .Take(MostHeads)
            .ToListAsync(stop);
        return
        [
            .. family
                .Values.Where(t => t.Key != key)
                .OrderByDescending(t => t.Reading?.Volume ?? 0)
                .Select(t => t.Key)
                .Prepend(key)
                .Take(MostHeads - 1)
                .Concat(before.Where(b => NounOf(b) == NounOf(key)))
                .Distinct()
                .Take(MostHeads),
        ];
    }

    private static List<GridRow> Rows(
        List<(string Word, bool Own)> words,
        List<string> heads,
        Dictionary<string, TermRow> typed,
        ShelfColumns shelf
    ) =>
        [
            .. words
                .Select(w => new GridRow(w.Word, w.Own, [.. heads.Select(h => Cell(w.Word, h, typed, shelf))]))
                .OrderByDescending(w => w.Own)
                .ThenByDescending(w => w.Cells.Max(c => c.Numbers.Volume ?? -1))
                .Take(WordsOfFacet),
        ];

    private static GridCell Cell(string word, string name, Dictionary<string, TermRow> typed, ShelfColumns shelf)
    {
        var best = Orders(word, name)
            .Select(t => typed.GetValueOrDefault(Tokens.Key(t)))
            .Where(t => t?.Reading?.Volume is not null)
            .OrderByDescending(t => t!.Reading!.Volume)
            .FirstOrDefault();
        return best is null
            ? new($"{word} {name}", Tokens.Key($"{word} {name}"), Measured.Nothing)
            : new(best.Text, best.Key, Measured.Of(best, shelf));
    }

    // Both orders are asked: "cedar bird house", but "bird house for kids".
    private static string[] Orders(string word, string name) => [$"{word} {name}", $"{name} for {word}", $"{name} {word}"];

    private static string NounOf(string key) => key.Split(' ') is var words ? Fold.Key(words[StopWords.About(words)], Fold.AnyForm) : "";

    // What the facts say of a facet, then the usual words, true of the product or not.
    private static List<(string Word, bool Own)> WordsFor(Facet facet, FactWords facts, string what)
    {
        var said = facts.ByFacet.GetValueOrDefault(facet, []).Select(f => f.ToLowerInvariant()).ToList();
        // Before the product's noun a word claims what it would not claim alone; before another one it might claim nothing, which is not true.
        var named = facts.What.Length > 0 ? facts : facts with { What = what };
        bool True(string word) => facet != Facet.Style && facts.AreGiven && Facets.Unbacked($"{word} {named.What}", named).Count == 0;
        return [.. said.Select(w => (w, true)), .. Facets.WordsOf(facet).Where(w => !said.Contains(w)).Select(w => (w, True(w)))];
    }
}
