using TinRabbit.Core.Words;

namespace TinRabbit.Core.Measures;

/// <summary>Ideas for products (docs/model.md, "Product ideas").</summary>
public static class Ideas
{
    /// <summary>Headroom from which a term is worth a product of its own; 50 is typical.</summary>
    public const double HeadroomFrom = 55;

    private const int MostTerms = 6;

    /// <summary>
    /// Groups unserved terms of high headroom that can be true of one thing: they end in the same word, and none says another
    /// colour, material, size, audience or occasion than another does. Terms of unknown headroom may join. Where no volume is known, an
    /// idea needs two terms, and those with more terms come first.
    /// </summary>
    public static IReadOnlyList<Idea> Find(IEnumerable<UnservedTerm> unserved)
    {
        UnservedTerm[] all = [.. unserved];
        var assumed = PickDemand.Assume([.. all.Select(u => u.Term)]);
        var counted = assumed.All(t => t.Volume is null);
        var left = all.Zip(assumed, (u, term) => u with { Term = term })
            .Where(u => u.Term.Headroom is not < HeadroomFrom && u.Term.Demand() > 0)
            .DistinctBy(u => Family.Key(u.Term.Text))
            .OrderByDescending(u => Weight(u.Term))
            .ThenBy(u => u.Term.Text, StringComparer.Ordinal)
            .ToList();
        var ideas = new List<(Idea Idea, double Weight)>();
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
            if (!counted || group.Count > 1)
                ideas.Add(
                    (
                        new(Named(group), group, Sum(group.Select(g => g.Term.Volume)), Mean(group.Select(g => g.Term.Headroom))),
                        group.Sum(g => Weight(g.Term))
                    )
                );
        }

        return [.. ideas.OrderByDescending(i => i.Weight).Select(i => i.Idea)];
    }

    private static double Weight(WantedTerm term) => term.Demand() / term.Fit.Weight() * (term.Headroom ?? WantedTerm.TypicalHeadroom);

    private static double? Sum(IEnumerable<double?> numbers) =>
        numbers.OfType<double>().ToList() is { Count: > 0 } known ? known.Sum() : null;

    private static double? Mean(IEnumerable<double?> numbers) =>
        numbers.OfType<double>().ToList() is { Count: > 0 } known ? known.Average() : null;

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
