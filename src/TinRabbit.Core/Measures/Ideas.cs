using TinRabbit.Core.Words;

namespace TinRabbit.Core.Measures;

/// <summary>Ideas for products (docs/model.md, "Ideas").</summary>
public static class Ideas
{
    /// <summary>Headroom from which a term is worth a product of its own; 50 is typical.</summary>
    public const double HeadroomFrom = 55;

    private const int MostTerms = 6;

    /// <summary>
    /// Groups unserved terms of high headroom that can be true of one thing: they end in the same word, and none says another
    /// colour, material, size, audience or occasion than another does.
    /// </summary>
    public static IReadOnlyList<Idea> Find(IEnumerable<UnservedTerm> unserved)
    {
        var left = unserved
            .Where(u => u.Term.Headroom >= HeadroomFrom && u.Term.Volume > 0)
            .DistinctBy(u => Family.Key(u.Term.Text))
            .OrderByDescending(u => u.Term.Volume * u.Term.Headroom)
            .ThenBy(u => u.Term.Text, StringComparer.Ordinal)
            .ToList();
        var ideas = new List<Idea>();
        while (left.Count > 0)
        {
            var group = new List<UnservedTerm> { left[0] };
            var said = FacetsOf(left[0]);
            foreach (var other in left.Skip(1))
                if (
                    group.Count < MostTerms
                    && Head(other) == Head(left[0])
                    && FacetsOf(other) is var says
                    && says.All(s => !said.TryGetValue(s.Key, out var word) || word == s.Value)
                )
                {
                    group.Add(other);
                    foreach (var (facet, word) in says)
                        said[facet] = word;
                }

            left.RemoveAll(group.Contains);
            ideas.Add(new(Named(group), group, group.Sum(g => g.Term.Volume!.Value), group.Average(g => g.Term.Headroom!.Value)));
        }

        return [.. ideas.OrderByDescending(i => i.Volume * i.Headroom)];
    }

    private static string Named(List<UnservedTerm> group)
    {
        var best = Tokens.Of(group[0].Term.Text).Select(t => t.Word).ToList();
        var said = best.Select(w => Fold.Key(w, Fold.AnyForm)).ToHashSet();
        var before = group
            .Skip(1)
            .SelectMany(g => Tokens.Of(g.Term.Text))
            .Select(t => t.Word)
            .Where(w => said.Add(Fold.Key(w, Fold.AnyForm)));
        return string.Join(' ', [.. before, .. best]);
    }

    private static string Head(UnservedTerm one)
    {
        var words = Tokens.Of(one.Term.Text).Select(t => t.Word).ToList();
        return Fold.Key(words[StopWords.About(words)], Fold.AnyForm);
    }

    private static Dictionary<Facet, string> FacetsOf(UnservedTerm one) =>
        Facets
            .ClaimsOf(one.Term.Text)
            .Where(c => c.Facet != Facet.Style)
            .GroupBy(c => c.Facet)
            .ToDictionary(g => g.Key, g => Fold.Key(g.First().Word.ToLowerInvariant(), Fold.AnyForm));
}
