using TinRabbit.Server.Files.Documents;
using TinRabbit.Server.Listings;

namespace TinRabbit.Server.Features.Pages;

// Finds what each product of the document is in the shop, and what the document says against itself.
internal sealed partial class ShopImport
{
    /// <summary>What a product of the document is in the shop. Rows of a table that name one product have one subject.</summary>
    private sealed class Subject
    {
        private readonly HashSet<string> _taken = new(StringComparer.Ordinal);
        private bool _isWhole;

        /// <summary>The product; null until it is created.</summary>
        public ProductRow? Row { get; set; }

        /// <summary>Its page; null where it has none.</summary>
        public PageRow? Page { get; set; }

        /// <summary>Whether a product of the document can belong to it: nothing before it has the same listing.</summary>
        public bool Fits(DocumentProduct given) =>
            !_isWhole && !(IsWhole(given) && _taken.Count > 0) && (given.Listings ?? []).All(l => !_taken.Contains(l.Platform));

        /// <summary>Takes a product of the document.</summary>
        public Subject With(DocumentProduct given)
        {
            _isWhole |= IsWhole(given);
            _taken.UnionWith((given.Listings ?? []).Select(l => l.Platform));
            return this;
        }

        private static bool IsWhole(DocumentProduct given) => given.Facts is not null || given.Picks is not null;
    }

    /// <summary>A product of the document, and what it is in the shop.</summary>
    private sealed record Entry(int Index, DocumentProduct Given, Subject Subject)
    {
        public string ProductKey => $"product {Index}";

        public string ListingKey(string platform) => $"listing {Index} {platform}";

        /// <summary>Whether the document tells anything of the product but its texts.</summary>
        public bool HasMoreThanTexts =>
            Given.Facts is not null
            || Given.Pictures is not null
            || Given.Picks is not null
            || Given.Notes is not null
            || Given.Digs is not null
            || Given.Likeness is not null;

        public IReadOnlyList<DocumentListing> Listings => Given.Listings ?? [];

        /// <summary>Its place in the shop, where the document tells it: a table and a saved page do not.</summary>
        public DocumentPage? Place => Given.Page is { Id: > 0 } page ? page : null;
    }

    // A page is found by its slug, a product by its name. Each is found once, so that two of one name stay two.
    private void Resolve()
    {
        var pages = _pages.ToLookup(p => p.Listing.ProductId);
        var subjects = _products.Select(p => new Subject { Row = p, Page = pages[p.Id].FirstOrDefault() }).ToList();
        var bySlug = subjects.Where(s => s.Page is { Slug.Length: > 0 }).ToLookup(s => s.Page!.Slug, StringComparer.Ordinal);
        var byName = subjects.GroupBy(s => Named(s.Row!.Name, s.Row.IsPage)).ToDictionary(g => g.Key, g => g.ToList());
        var found = new Subject?[(document.Products ?? []).Count];
        foreach (var (index, given) in Given())
            if (SlugOf(given) is { Length: > 0 } slug)
                found[index] = bySlug[slug].FirstOrDefault(s => s.Fits(given))?.With(given);
        _entries = [.. Given().Select(g => new Entry(g.Index, g.Item, found[g.Index] ?? ByName(g.Item)))];
        _entryOfPage = _entries.Where(e => e.Place is not null).DistinctBy(e => e.Place!.Id).ToDictionary(e => e.Place!.Id);

        Subject ByName(DocumentProduct given)
        {
            var key = Named(NameOf(given), given.IsPage);
            if (!byName.TryGetValue(key, out var named))
                byName[key] = named = [];
            // A page that has another slug is another page; a product is the same under another slug.
            var subject = named.FirstOrDefault(s =>
                s.Fits(given) && !(given.IsPage && SlugOf(given).Length > 0 && s.Page is { Slug.Length: > 0 })
            );
            if (subject is null)
                named.Add(subject = new());
            return subject.With(given);
        }
    }

    private IEnumerable<(int Index, DocumentProduct Item)> Given() => (document.Products ?? []).Index();

    private void ThrowIfContradictory()
    {
        var problems = new List<Problem>();
        foreach (var entry in _entries)
        {
            foreach (var listing in entry.Listings.Where(l => !_platforms.ContainsKey(l.Platform)))
                problems.Add(Wrong($"“{entry.Given.Name}” has a listing on “{listing.Platform}”, a platform that is not there."));
            foreach (var twice in entry.Listings.GroupBy(l => l.Platform).Where(g => g.Count() > 1))
                problems.Add(Wrong($"“{entry.Given.Name}” has two listings on “{twice.Key}”; it can have one."));
            if (entry.Given.IsPage && (entry.Given.Page is null || entry.Listings.All(l => l.Platform != _rules.Id)))
                problems.Add(Wrong($"“{entry.Given.Name}” is a page without a place in the shop, or without texts."));
            if (entry.Place is { } place && _entryOfPage[place.Id] != entry)
                problems.Add(Wrong($"“{entry.Given.Name}” and “{_entryOfPage[place.Id].Given.Name}” are both page {place.Id}."));
            if (entry.Place is not null && IsInsideItself(entry))
                problems.Add(Wrong($"“{entry.Given.Name}” is inside itself."));
        }

        var added = _entries.Count(e => e.Given.Page is not null && e.Subject.Page is null);
        if (_pages.Count + added > Core.Bounds.Pages)
            problems.Add(Wrong($"The shop would have {_pages.Count + added:#,0} pages; the most is {Core.Bounds.Pages:#,0}."));
        if (problems.Count > 0)
            throw new InvalidInputException([.. problems.Take(20)]);
    }

    private bool IsInsideItself(Entry entry)
    {
        var steps = 0;
        for (var above = entry; above.Place?.Parent is { } id && _entryOfPage.TryGetValue(id, out var next); above = next)
            if (next == entry || ++steps > _entries.Count)
                return true;
        return false;
    }

    private string SlugOf(DocumentProduct product) =>
        product.Page is not null && product.Listings?.FirstOrDefault(l => l.Platform == _rules.Id) is { } listing
            ? ListingText.Of(listing.Fields).TextOf(_rules, "slug")
            : "";

    private static (string, bool) Named(string name, bool isPage) => (name.Trim().ToUpperInvariant(), isPage);

    // A heading can be longer than a name.
    private static string NameOf(DocumentProduct given)
    {
        var name = given.Name.Trim();
        if (name.Length <= Core.Bounds.NameLength)
            return name;
        var most = Core.Bounds.NameLength;
        return name[..(char.IsHighSurrogate(name[most - 1]) ? most - 1 : most)].Trim();
    }
}
