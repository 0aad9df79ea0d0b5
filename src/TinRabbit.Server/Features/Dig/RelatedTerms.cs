using TinRabbit.Server.Listings;
using TinRabbit.Server.Picks;
using TinRabbit.Server.Shelf;

namespace TinRabbit.Server.Features.Dig;

/// <summary>Words related to the words of a term, each in its place in the term and with the numbers of that.</summary>
internal sealed class RelatedTerms(TinContext db, Shelves shelves)
{
    /// <summary>The whole term, then each word of it with the rest around it.</summary>
    /// <param name="marketId">Where shoppers search.</param>
    /// <param name="text">The term.</param>
    /// <param name="productId">The product whose words tell which meaning is wanted; null for none.</param>
    /// <param name="stop">Stops waiting.</param>
    public async Task<List<AlikeView>> Load(string marketId, string text, int? productId, CancellationToken stop)
    {
        var found = RelatedTo(text);
        var typed = found.SelectMany(f => f.Terms).Select(t => t.Term).Append(text).Distinct().ToList();
        var terms = await shelves.MeasureTyped(db, marketId, typed, stop);
        var context = await ContextOf(productId, stop);
        // The market knows what shoppers type there: then a meaning that nobody searches for is set apart.
        var isKnown = terms.Values.Any(t => t.Reading?.Volume > 0);
        return await shelves.Query(db, marketId, shelf => found.Select(f => ViewOf(f, shelf)).ToList(), stop);

        AlikeView ViewOf((string Word, List<(RelatedWord, string)> Terms) related, ShelfColumns shelf) =>
            new(
                related.Word,
                [
                    .. BySense(related.Terms, terms, context, isKnown)
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
            );
    }

    private static List<(string Word, List<(RelatedWord Alike, string Term)> Terms)> RelatedTo(string text)
    {
        var words = Tokens.Of(text).Select(t => t.Word).ToArray();
        var found = new List<(string Word, List<(RelatedWord Alike, string Term)> Terms)>();
        if (words.Length > 1)
            found.Add((string.Join(' ', words), [.. Thesaurus.Of(text).Select(a => (a, a.Word))]));
        for (var i = 0; i < words.Length; i++)
            if (!StopWords.Has(words[i]))
                found.Add(
                    (words[i], [.. Thesaurus.Of(words[i]).Select(a => (a, string.Join(' ', [.. words[..i], a.Word, .. words[(i + 1)..]])))])
                );
        found.RemoveAll(f => f.Terms.Count == 0);
        return found;
    }

    // Words of the product: its name, its facts and its picks.
    private async Task<HashSet<string>> ContextOf(int? productId, CancellationToken stop)
    {
        if (productId is not { } id || await db.Products.AsNoTracking().FirstOrDefaultAsync(p => p.Id == id, stop) is not { } row)
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
}
