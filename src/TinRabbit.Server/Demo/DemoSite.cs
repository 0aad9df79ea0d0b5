using TinRabbit.Server.Listings;
using TinRabbit.Server.Picks;

namespace TinRabbit.Server.Demo;

/// <summary>The made-up web shop of the demo: about forty pages with faults that sellers know.</summary>
internal static class DemoSite
{
    private const string Suffix = " – Plover & Pine";

    /// <summary>Adds the site and its pages to the demo shop, whose products are saved already.</summary>
    public static async Task Add(TinContext db, ListingEditor editor)
    {
        var rules = (await db.Platforms.FirstAsync(p => p.Id == Sites.PlatformId)).Profile;
        db.Sites.Add(
            new()
            {
                PlatformId = Sites.PlatformId,
                Brand = DemoShop.Shipped.Name,
                Address = "https://ploverandpine.example",
                TitleSuffix = Suffix,
            }
        );
        var products = await db.Products.Include(p => p.Listings).Include(p => p.Pictures).ToListAsync();
        var picks = (await db.Picks.ToListAsync()).ToLookup(p => p.ProductId);
        var shop = await db.Shops.OrderBy(s => s.Id).FirstAsync();
        var made = new Dictionary<string, PageRow>(StringComparer.Ordinal);
        foreach (var draft in DemoShop.Shipped.Pages)
        {
            var page = Of(
                db,
                picks,
                draft,
                products,
                shop.Id,
                draft.Inside is { } inside ? made[inside].Id : null,
                made.Values.Count(p => p.ParentId == (draft.Inside is { } parent ? made[parent].Id : null))
            );
            page.IsHome = made.Count == 0;
            db.Pages.Add(page);
            await db.SaveChangesAsync();
            made[draft.Name] = page;
        }

        // Links name their pages; now each has its number.
        foreach (var draft in DemoShop.Shipped.Pages)
        {
            var page = made[draft.Name];
            var fields = TextOf(draft, page.Listing);
            if (fields["body"] is JsonValue body)
                fields["body"] = made.Aggregate(
                    body.GetValue<string>(),
                    (html, m) => html.Replace($"{{{m.Key}}}", $"{m.Value.Id}", StringComparison.Ordinal)
                );
            await editor.Replace(page.Listing, ListingText.Of(fields), VersionReason.PageAdded, default);
            ListingEditor.SetHead(page, rules);
            page.LiveSlug = draft.Published ? page.Slug : null;
        }

        await db.SaveChangesAsync();
    }

    private static PageRow Of(
        TinContext db,
        ILookup<int, PickRow> there,
        DemoShop.Page draft,
        List<ProductRow> products,
        int shopId,
        int? parentId,
        int order
    )
    {
        var product = draft.Product is { } name
            ? products.First(p => p.Name == name)
            : new()
            {
                Name = draft.Name,
                IsPage = true,
                ShopId = shopId,
            };
        if (draft.Product is null && draft.Kind == PageKind.Category)
            product.Pictures.Add(new() { Description = draft.Menu is null ? "" : "Our work", Shows = draft.Name });
        if (draft.Product is null && draft.Kind == PageKind.Category && draft.Menu is not null)
            product.Pictures.Add(new() { Description = "Our work", Order = 1 });
        var listing = product.Listings.FirstOrDefault(l => l.PlatformId == Sites.PlatformId);
        if (listing is null)
            listing = ListingEditor.Add(product, Sites.PlatformId, db.Now);
        var picks = (draft.Picks ?? []).Append(draft.Lead).OfType<string>().Distinct().ToList();
        var known = there[product.Id].Select(p => p.Key).ToHashSet(StringComparer.Ordinal);
        foreach (var text in picks.Where(p => known.Add(Tokens.Key(p))))
            db.Picks.Add(
                new()
                {
                    Product = product,
                    Text = text,
                    Key = Tokens.Key(text),
                    Fit = text == draft.Lead ? Fit.Core : Fit.Good,
                    Home = text == draft.Lead ? Home.Title : Home.Anywhere,
                    Order = known.Count,
                }
            );
        if (draft.Lead is { } lead && listing.LeadKey is null)
            ListingEditor.SetLead(listing, Tokens.Key(lead));
        return new()
        {
            Listing = listing,
            Kind = draft.Kind,
            ParentId = parentId,
            Order = order,
            InMenu = draft.Menu is not null || draft.Kind == PageKind.Category,
            IsPublished = draft.Published,
            CreatedAt = db.Now.AddDays(-40),
        };
    }

    private static JsonObject TextOf(DemoShop.Page draft, ListingRow listing)
    {
        var copy = listing.Copy.Fields();
        Set("heading", draft.Name);
        Set("menuName", draft.Menu);
        Set("pageTitle", draft.Title);
        Set("metaDescription", draft.Meta);
        Set("slug", draft.Slug ?? Slugs.Of(draft.Lead ?? draft.Name, _ => false));
        Set("body", draft.Body);
        return copy;

        void Set(string key, string? text)
        {
            if (text is not null && copy[key] is null)
                copy[key] = text;
        }
    }
}
