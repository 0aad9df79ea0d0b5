using TinRabbit.Core.Words;

namespace TinRabbit.Core.Pages;

/// <summary>Which kind of page a term needs that no page targets.</summary>
public static class PageNeed
{
    private static readonly HashSet<string> Asking = [.. WordData.Lines("asking.txt", "Pages")];

    /// <summary>
    /// Content where the term asks (how, best, ideas, for whom); a category where several products are what its head noun says; a product where
    /// one is and the facts allow each of its words. Null where the shop has nothing for it.
    /// </summary>
    /// <param name="term">The term.</param>
    /// <param name="products">What is true of each product of the shop.</param>
    public static PageKind? KindFor(string term, IReadOnlyList<FactWords> products)
    {
        var words = Tokens.Of(term).Select(t => t.Word).ToList();
        var head = Stem(Modifiers.HeadOf(term));
        var fitting = products.Where(p => Tokens.Of(p.What).Any(t => Stem(t.Word) == head)).ToList();
        var allowed = fitting.Where(p => Facets.Unbacked(term, p).Count == 0).ToList();
        if (words.Any(Asking.Contains) || Facets.ClaimsOf(term).Any(c => c.Facet == Facet.Audience))
            return fitting.Count > 0 ? PageKind.Content : null;
        return allowed.Count switch
        {
            0 => null,
            1 => PageKind.Product,
            _ => PageKind.Category,
        };
    }

    private static string Stem(string word) => Fold.Key(word, Fold.AnyForm);
}
