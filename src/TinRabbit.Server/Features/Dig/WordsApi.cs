using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using TinRabbit.Core.Measures;
using TinRabbit.Core.Words;
using TinRabbit.Market;
using TinRabbit.Server.Listings;
using TinRabbit.Server.Picks;
using TinRabbit.Server.Shelf;
using TinRabbit.Server.Storage;

namespace TinRabbit.Server.Features.Dig;

/// <summary>The words of a term, with words alike to each.</summary>
/// <param name="Word">The word, or the whole term.</param>
public sealed record AlikeView(string Word, IReadOnlyList<AlikeTerm> Alike);

/// <summary>A word related to a word of a term.</summary>
/// <param name="Part">noun, verb, adjective or adverb.</param>
/// <param name="Term">The term with this word in the place of the other.</param>
/// <param name="Key">Its words.</param>
/// <param name="Numbers">The numbers of that term in the market.</param>
/// <param name="IsUsed">
/// Whether shoppers search for any term of this meaning. Where nobody knows what they search for, the likeliest meaning counts as used.
/// </param>
public sealed record AlikeTerm(string Word, string Part, Relation Likeness, string Term, string Key, Measured Numbers, bool IsUsed);

/// <summary>A term and other names for it, combined with words that describe the product.</summary>
/// <param name="Heads">The head term first, then other names for it that are typed.</param>
/// <param name="Facets">The product's own words first in each.</param>
public sealed record GridView(IReadOnlyList<string> Heads, IReadOnlyList<GridFacet> Facets);

/// <summary>The rows of one facet.</summary>
public sealed record GridFacet(Facet Facet, IReadOnlyList<GridRow> Rows);

/// <summary>A word against each head.</summary>
/// <param name="Own">Whether it is true of the product by its facts.</param>
public sealed record GridRow(string Word, bool Own, IReadOnlyList<GridCell> Cells);

/// <summary>A phrase of the grid.</summary>
/// <param name="Text">As shoppers type it.</param>
/// <param name="Numbers">Its numbers in the market.</param>
public sealed record GridCell(string Text, string Key, Measured Numbers);

internal static class WordsApi
{
    private const int MostHeads = 4;
    private const int WordsOfFacet = 12;

    public static void MapWords(this IEndpointRouteBuilder app)
    {
        var api = app.MapGroup("/api").WithTags("Words");

        api.MapGet("/markets/{marketId}/alike", GetAlike).WithName("GetAlike");

        api.MapGet("/products/{id:int}/grid/{marketId}", GetGrid).WithName("GetGrid");
    }

    private static async Task<Results<Ok<List<AlikeView>>, NotFound>> GetAlike(
        string marketId,
        string text,
        int? product,
        TinContext db,
        IMarket market,
        Shelves shelves,
        CancellationToken stop
    )
    {
        if (market.Places.All(p => p.Id != marketId) || Tokens.Of(text) is not { Count: > 0 } tokens)
            return TypedResults.NotFound();
        var words = tokens.Select(t => t.Word).ToArray();
        // The whole term, then each word of it with the rest around it.
        var found = new List<(string Word, List<(RelatedWord Alike, string Term)> Terms)>();
        if (words.Length > 1)
            found.Add((string.Join(' ', words), [.. Thesaurus.Of(text).Select(a => (a, a.Word))]));
        for (var i = 0; i < words.Length; i++)
            if (!StopWords.Has(words[i]))
                found.Add(
                    (words[i], [.. Thesaurus.Of(words[i]).Select(a => (a, string.Join(' ', [.. words[..i], a.Word, .. words[(i + 1)..]])))])
                );
        var asked = found.SelectMany(f => f.Terms).Select(t => t.Term).Append(text).Distinct().ToList();
        var terms = await shelves.MeasureTyped(db, marketId, asked, stop);
        var context = await ContextOf(db, product, stop);
        // The market knows what shoppers type there: then a meaning that nobody searches for is set apart.
        var isKnown = terms.Values.Any(t => t.Reading?.Volume > 0);
        return TypedResults.Ok(
            await shelves.Query(
                db,
                marketId,
                shelf =>
                    found
                        .Where(f => f.Terms.Count > 0)
                        .Select(f => new AlikeView(
                            f.Word,
                            [
                                .. BySense(f.Terms, terms, context, isKnown)
                                    .Select(t => new AlikeTerm(
                                        t.Alike.Word,
                                        t.Alike.Part,
                                        t.Alike.Likeness,
                                        t.Term,
                                        Tokens.Key(t.Term),
                                        Measured.Of(terms.GetValueOrDefault(Tokens.Key(t.Term)), shelf),
                                        t.IsUsed
                                    )),
                            ]
                        ))
                        .ToList(),
                stop
            )
        );
    }

    private static async Task<Results<Ok<GridView>, NotFound>> GetGrid(
        int id,
        string marketId,
        string head,
        TinContext db,
        IMarket market,
        Shelves shelves,
        CancellationToken stop
    )
    {
        if (
            await db.Products.AsNoTracking().FirstOrDefaultAsync(p => p.Id == id, stop) is not { } product
            || market.Places.All(p => p.Id != marketId)
            || Tokens.Key(head) is not { Length: > 0 } key
        )
            return TypedResults.NotFound();
        var family = await shelves.MeasureTyped(db, marketId, Family.Forms(key), stop);
        // Its other forms, then what else was looked up for this product here that is the same kind of thing.
        var before = await db
            .Digs.AsNoTracking()
            .Where(d => d.ProductId == id && d.MarketId == marketId)
            .OrderByDescending(d => d.At)
            .Select(d => d.Key)
            .Take(MostHeads)
            .ToListAsync(stop);
        var heads = family
            .Values.Where(t => t.Key != key)
            .OrderByDescending(t => t.Reading?.Volume ?? 0)
            .Select(t => t.Key)
            .Prepend(key)
            .Take(MostHeads - 1)
            .Concat(before.Where(b => NounOf(b) == NounOf(key)))
            .Distinct()
            .Take(MostHeads)
            .ToList();
        var facts = await db.FactsOf(product.Facts, stop);
        var rows = Enum.GetValues<Facet>().ToDictionary(f => f, f => WordsFor(f, facts, key));
        // Both orders are asked: "cedar bird house", but "bird house for kids".
        string[] Orders(string word, string name) => [$"{word} {name}", $"{name} for {word}", $"{name} {word}"];
        var typed = await shelves.MeasureTyped(
            db,
            marketId,
            [.. rows.Values.SelectMany(r => r).SelectMany(r => heads.SelectMany(h => Orders(r.Word, h))).Distinct()],
            stop
        );
        return TypedResults.Ok(
            await shelves.Query(
                db,
                marketId,
                shelf => new GridView(
                    heads,
                    [
                        .. rows.Select(r => new GridFacet(
                                r.Key,
                                [.. r.Value.Select(w => new GridRow(w.Word, w.Own, [.. heads.Select(h => Cell(w.Word, h, shelf))]))]
                            ))
                            .Select(f =>
                                f with
                                {
                                    Rows =
                                    [
                                        .. f
                                            .Rows.OrderByDescending(w => w.Own)
                                            .ThenByDescending(w => w.Cells.Max(c => c.Numbers.Volume ?? -1))
                                            .Take(WordsOfFacet),
                                    ],
                                }
                            ),
                    ]
                ),
                stop
            )
        );

        GridCell Cell(string word, string name, ShelfColumns shelf)
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
    }

    private static string NounOf(string key) => key.Split(' ') is var words ? Fold.Key(words[StopWords.About(words)], Fold.AnyForm) : "";

    // Words of the product: its name, its facts and its picks.
    private static async Task<HashSet<string>> ContextOf(TinContext db, int? product, CancellationToken stop)
    {
        if (product is not { } id || await db.Products.AsNoTracking().FirstOrDefaultAsync(p => p.Id == id, stop) is not { } row)
            return [];
        var picks = await db
            .Picks.AsNoTracking()
            .Where(p => p.ProductId == id && p.Home != Home.Avoid)
            .Select(p => p.Text)
            .ToListAsync(stop);
        string[] said = [row.Name, row.Facts.What, .. row.Facts.Materials, .. row.Facts.Audiences, .. row.Facts.Occasions, .. picks];
        return [.. said.SelectMany(Tokens.Of).Select(t => t.Word).Where(w => !StopWords.Has(w))];
    }

    // By class; the meaning comes first whose words the product uses, then the one whose terms shoppers search for, then the commonest.
    // Within a meaning, what is searched most comes first.
    private static IEnumerable<(RelatedWord Alike, string Term, bool IsUsed)> BySense(
        List<(RelatedWord Alike, string Term)> words,
        Dictionary<string, TermRow> terms,
        HashSet<string> context,
        bool isKnown
    )
    {
        var senses = words
            .GroupBy(w => (w.Alike.Part, w.Alike.Sense))
            .ToDictionary(
                g => g.Key,
                g =>
                    (
                        Shared: g.Count(w => w.Alike.Word.Split(' ').Any(context.Contains)) / Math.Sqrt(g.Count()),
                        Searched: g.Count(w => terms.GetValueOrDefault(Tokens.Key(w.Term))?.Reading?.Volume > 0) / Math.Sqrt(g.Count())
                    )
            );
        var likeliest = senses.OrderByDescending(s => s.Value.Shared).ThenBy(s => s.Key.Sense).FirstOrDefault().Key;
        return words
            .OrderBy(w => w.Alike.Part, StringComparer.Ordinal)
            .ThenByDescending(w => senses[(w.Alike.Part, w.Alike.Sense)].Shared)
            .ThenByDescending(w => senses[(w.Alike.Part, w.Alike.Sense)].Searched)
            .ThenBy(w => w.Alike.Sense)
            .ThenByDescending(w => terms.GetValueOrDefault(Tokens.Key(w.Term))?.Reading?.Volume ?? -1)
            .ThenBy(w => w.Alike.Likeness)
            .Select(w => (w.Alike, w.Term, Sense: (w.Alike.Part, w.Alike.Sense)))
            .Select(w => (w.Alike, w.Term, isKnown ? senses[w.Sense].Searched > 0 : w.Sense == likeliest));
    }

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
