namespace TinRabbit.Core.Pages;

/// <summary>Terms that a page could have as its lead without competing with another page.</summary>
public sealed class FreeTerms
{
    private readonly HashSet<string> _leads;
    private readonly ILookup<string, int> _strongOn;

    /// <param name="pages">The published pages with what they hold.</param>
    /// <param name="leads">The keys of the leads of all pages.</param>
    public FreeTerms(IReadOnlyList<PageHolding> pages, IEnumerable<string> leads)
    {
        _leads = leads.ToHashSet(StringComparer.Ordinal);
        _strongOn = pages
            .SelectMany(p => p.Held.Where(t => t.Grip >= Clashes.Strong).Select(t => (t.Key, p.Id)))
            .ToLookup(t => t.Key, t => t.Id, StringComparer.Ordinal);
    }

    /// <summary>Whether no page has a term as its lead, and no other page than one holds it strongly.</summary>
    /// <param name="pageId">The page that would have it.</param>
    /// <param name="key">The term's key.</param>
    public bool IsFree(int pageId, string key) => !_leads.Contains(key) && _strongOn[key].All(id => id == pageId);

    /// <summary>Whether a page targets a term: has it as its lead or holds it strongly.</summary>
    public bool IsTargeted(string key) => _leads.Contains(key) || _strongOn.Contains(key);
}
