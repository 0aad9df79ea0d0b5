namespace TinRabbit.Core.Pages;

/// <summary>Terms for which pages of the same shop compete, and which page should keep each (docs/model.md, "Pages").</summary>
public static class Clashes
{
    /// <summary>The grip from which a page holds a term strongly, 0–1.</summary>
    public const double Strong = 0.6;

    /// <summary>The same lead on several pages; and terms of known volume that several hold strongly and at most one has as lead. The most searched first.</summary>
    public static IReadOnlyList<Clash> Find(IReadOnlyList<PageHolding> pages)
    {
        var clashes = new List<Clash>();
        foreach (var sharing in pages.Where(p => p.LeadKey is not null).GroupBy(p => p.LeadKey!).Where(g => g.Count() > 1))
            clashes.Add(Of(sharing.Key, [.. sharing], isLead: true));
        var strong = pages
            .SelectMany(p => p.Held.Where(h => h.Grip >= Strong && h.Volume is not null).Select(h => (Page: p, h.Key)))
            .GroupBy(h => h.Key, h => h.Page);
        foreach (var holding in strong)
            if (holding.Count() > 1 && holding.Count(p => p.LeadKey == holding.Key) <= 1)
                clashes.Add(Of(holding.Key, [.. holding], isLead: false));
        return [.. clashes.OrderByDescending(c => c.IsLead).ThenByDescending(c => c.Volume ?? -1)];
    }

    // The keeper has the most grip; then products come before categories and those before content; then the older page.
    private static Clash Of(string key, IReadOnlyList<PageHolding> pages, bool isLead)
    {
        var order = pages.OrderByDescending(p => Held(p)?.Grip ?? 0).ThenBy(p => p.Kind).ThenBy(p => p.Id).ToList();
        var term = order.Select(Held).FirstOrDefault(h => h is not null);
        return new(key, term?.Text ?? key, term?.Volume, isLead, order[0].Id, [.. order.Skip(1).Select(p => p.Id)]);

        HeldTerm? Held(PageHolding page) => page.Held.FirstOrDefault(h => h.Key == key);
    }
}
