using TinRabbit.Server.Drops;
using TinRabbit.Server.Files.Documents;
using TinRabbit.Server.Files.Html.Reading;
using TinRabbit.Server.Files.Tables;
using TinRabbit.Server.Journal;
using TinRabbit.Server.Listings;
using TinRabbit.Server.Markets;
using TinRabbit.Server.Recordings;
using TinRabbit.Server.Rivals;

namespace TinRabbit.Server.Features.Pages;

/// <summary>The seller's own listings on a marketplace: its export as a table, saved pages, a product as JSON-LD, or one pasted listing.</summary>
internal sealed class OwnListingsDrop(TinContext db, ListingEditor editor, IMarket market) : IDropKind, IHasColumns
{
    private const int MostText = 32 << 20;
    private static readonly string[] Parts = [", ", " - ", " – ", " | ", "; ", ": "];

    public string Id => "listings";

    public string Name => "My listings";

    public double? Fits(DropContent content)
    {
        if (content.Table is { } table)
        {
            var title = table.Find("title", "titel", "título", "titre", "name", "product") >= 0;
            var more = table.Find(
                "tag",
                "keyword",
                "description",
                "sku",
                "price",
                "quantity",
                "bullet",
                "photo",
                "image",
                "category",
                "url"
            );
            return title && more >= 0 ? 0.8
                : table.Width > 2 ? 0.2
                : null;
        }

        if (content.Page?.Listing is { Title.Length: > 0 } listing)
            return PageReader.IsSame(listing.Shop, content.Context.Shop) ? 0.95 : 0.35;
        if (content.IsJson)
            return 0.6;
        return content.Text is { } text && LabelledText.Count(text) >= 2 ? 0.96 : null;
    }

    public IReadOnlyList<DropColumn>? ColumnsOf(DroppedThing thing) =>
        thing.Content.Table is { } table && PlatformOf(thing) is { } platform
            ? TableRoles.Shown(
                table,
                RolesOf(table, thing.Choice, platform),
                [.. ListingColumns.RolesOf(platform).Select(r => new DropKindName(r.Role, r.Name))]
            )
            : null;

    public async Task<DropShown> Look(DroppedThing thing, CancellationToken stop)
    {
        var (document, listings) = await DocumentOf(thing, stop);
        var items = (await new ShopImport(db, editor, document).Plan(stop))
            .Where(i => i.Key.StartsWith("listing ", StringComparison.Ordinal))
            .ToList();
        var (fresh, changed) = (items.Count(i => i.State == ImportState.New), items.Count(i => i.State == ImportState.Changed));
        var facts = new List<DropFact>
        {
            new("New", $"{fresh:#,0}"),
            new("Different here", $"{changed:#,0}"),
            new("Unchanged", $"{items.Count - fresh - changed:#,0}"),
        };
        var unsure = new List<string>();
        if (thing.Content.Table is { } table && PlatformOf(thing) is { } platform)
        {
            var roles = RolesOf(table, thing.Choice, platform);
            var unused = Enumerable.Range(0, table.Width).Where(i => roles[i].Length == 0).Select(i => $"“{table.Heads[i]}”").ToList();
            if (unused.Count > 0)
                unsure.Add($"No field here holds {string.Join(", ", unused)}: kept with the listing, for an export for upload.");
        }

        unsure.AddRange(await ChangedThere(thing, listings, stop));
        return new(
            listings.Count == 1 ? $"Your listing “{listings[0].Name}”" : $"{listings.Count:#,0} of your listings",
            facts,
            ["Listing", "What changes"],
            [
                .. items
                    .Take(DropShown.MostRows)
                    .Select(i => new DropRow(
                        [
                            i.Name,
                            i.State == ImportState.Changed
                                ? string.Join(" · ", i.Changes.Select(c => $"{c.Label}: {Short(c.Before)} → {Short(c.After)}"))
                            : i.State == ImportState.New ? string.Join(" · ", i.Changes.Where(c => c.After.Length > 0).Select(c => c.Label))
                            : "nothing",
                        ],
                        false,
                        i.State == ImportState.New ? "new" : null
                    )),
            ],
            items.Count,
            unsure,
            items.Count == 0 ? "There is no listing in it." : null,
            Columns: ColumnsOf(thing),
            HasDay: true,
            IsLive: thing.Choice.IsLive ?? true
        );
    }

    public async Task<IReadOnlyList<IUndoStep>> Add(IReadOnlyList<DroppedThing> things, CancellationToken stop)
    {
        var steps = new List<IUndoStep>();
        foreach (var thing in things)
        {
            var (document, _) = await DocumentOf(thing, stop);
            var live = thing.Choice.IsLive ?? true ? new LiveTexts(market.TimeOf(thing.Day), _ => thing.Market.Id) : null;
            var (_, imported) = await new ShopImport(db, editor, document).Apply(null, live, stop);
            steps.AddRange(imported);
            if (thing.Content.Table is { } table && PlatformOf(thing) is { } platform)
                steps.AddRange(await AddShape(table, thing, platform, stop));
            if (thing.Content.Page?.Listing is { Reviews.Count: > 0 } page)
                steps.AddRange(await AddReviews(page, thing, document, stop));
        }

        return steps;
    }

    // How the export is laid out is remembered, so that an export for upload is laid out so again.
    private async Task<IReadOnlyList<IUndoStep>> AddShape(DropTable table, DroppedThing thing, Platform platform, CancellationToken stop)
    {
        if (table.Heads.All(h => h.Length == 0))
            return [];
        var heads = string.Join('\t', table.Heads);
        var roles = RolesOf(table, thing.Choice, platform);
        var separators = SeparatorsOf(table, roles, platform);
        List<UploadColumn> columns = [.. table.Heads.Select((h, i) => new UploadColumn(h, roles[i], separators[i]))];
        var there = await db.UploadShapes.Where(s => s.PlatformId == platform.Id).ToListAsync(stop);
        if (there.Exists(s => s.Heads == heads && s.Columns.SequenceEqual(columns)))
            return [];
        var shape = db
            .UploadShapes.Add(
                new()
                {
                    PlatformId = platform.Id,
                    Heads = heads,
                    Columns = columns,
                }
            )
            .Entity;
        await db.SaveChangesAsync(stop);
        return [RemoveRows.Of<UploadShapeRow>([shape.Id])];
    }

    private async Task<IReadOnlyList<IUndoStep>> AddReviews(
        ReadListing page,
        DroppedThing thing,
        ShopDocument document,
        CancellationToken stop
    )
    {
        var name = document.Products![0].Name;
        var listing = await db
            .Listings.Where(l => l.PlatformId == thing.Market.PlatformId && l.Product.Name == name)
            .OrderBy(l => l.Id)
            .FirstOrDefaultAsync(stop);
        if (listing is null)
            return [];
        var added = await Reviews.Add(db, listing.Id, false, null, GivenReview.Of(page, market.LastDay), thing.Content.Source, stop);
        return [RemoveRows.Of<ReviewRow>(added.Select(r => r.Id))];
    }

    // A listing that was read again is compared with what was last sent.
    private async Task<List<string>> ChangedThere(DroppedThing thing, List<DocumentProduct> listings, CancellationToken stop)
    {
        var said = new List<string>();
        var platform = PlatformOf(thing)!;
        if (platform.Role("title") is not { } title)
            return said;
        var sent = (
            await db
                .Sent.AsNoTracking()
                .Where(s => s.MarketId == thing.Market.Id)
                .Join(db.Listings.Include(l => l.Product), s => s.ListingId, l => l.Id, (s, l) => new { s, l.Product.Name })
                .ToListAsync(stop)
        )
            .GroupBy(s => s.Name)
            .ToDictionary(g => g.Key, g => g.OrderByDescending(s => s.s.At).First().s.Copy.TextOf(platform, "title"));
        foreach (var listing in listings)
            if (
                sent.GetValueOrDefault(listing.Name) is { Length: > 0 } mine
                && listing.Listings![0].Fields[title.Key]?.GetValue<string>() is { Length: > 0 } theirs
                && mine != theirs
            )
                said.Add(
                    mine.StartsWith(theirs.TrimEnd('…', '.', ' '), StringComparison.OrdinalIgnoreCase)
                        ? $"The marketplace shortened your title: “{theirs}”. You published “{mine}”."
                        : $"The title there is “{theirs}”. You published “{mine}”."
                );
        return said;
    }

    private async Task<(ShopDocument Document, List<DocumentProduct> Listings)> DocumentOf(DroppedThing thing, CancellationToken stop)
    {
        var platform = PlatformOf(thing) ?? throw HeadedRow.Wrong("Choose the market of one of your platforms.");
        var known = await db
            .Listings.AsNoTracking()
            .Include(l => l.Product)
            .Where(l => l.PlatformId == platform.Id)
            .OrderBy(l => l.Id)
            .ToListAsync(stop);
        var own = (await OwnListings.Load(db, platform.Id, stop)).ToDictionary(o => o.Id);
        var products = await db.Products.AsNoTracking().Where(p => !p.IsPage).OrderBy(p => p.Id).Select(p => p.Name).ToListAsync(stop);
        var named = new HashSet<string>(StringComparer.OrdinalIgnoreCase);
        var listings = (await Read(thing, platform, stop)).Select(l => Of(l)).ToList();
        return (ShopDocument.Of([.. listings]), listings);

        DocumentProduct Of(ListingExports.Listing read)
        {
            var details = read.Details;
            var there =
                (details.Number.Length > 0 ? known.Find(l => l.Details?.Number == details.Number) : null)
                ?? (details.Sku.Length > 0 ? known.Find(l => l.Details?.Sku == details.Sku) : null)
                ?? known.Find(l => read.Title.Length > 0 && own.TryGetValue(l.Id, out var o) && o.IsNamed(read.Title));
            var name = there?.Product.Name ?? NameOf(read, products, known);
            // Two of one name stay two.
            if (!named.Add(name))
                named.Add(name = read.Title.Length is > 0 and <= Core.Bounds.NameLength ? read.Title : $"{name} ({read.Row})");
            return new(name, Listings: [new(platform.Id, read.Fields, Details: details == new ListingDetails() ? null : details)]);
        }
    }

    // The product that it names, or the only one whose name is all in the title and that is not on this platform yet; otherwise the first part of the title.
    private static string NameOf(ListingExports.Listing read, List<string> products, List<ListingRow> known)
    {
        if (read.Product.Length > 0)
            return read.Product;
        var words = Tokens.Key(read.Title).Split(' ').ToHashSet(StringComparer.Ordinal);
        var alike = products
            .Where(p => Tokens.Key(p).Split(' ') is { Length: > 1 } own && Array.TrueForAll(own, words.Contains))
            .Where(p => !known.Exists(l => l.Product.Name == p && l.Copy != ListingText.Empty))
            .ToList();
        if (alike.Count == 1)
            return alike[0];
        var first = read.Title.Split(Parts, StringSplitOptions.RemoveEmptyEntries | StringSplitOptions.TrimEntries).FirstOrDefault() ?? "";
        var name = Tokens.Of(first).Count > 1 ? first : read.Title;
        return name.Length <= Core.Bounds.NameLength ? name : name[..Core.Bounds.NameLength].Trim();
    }

    private static async Task<IReadOnlyList<ListingExports.Listing>> Read(DroppedThing thing, Platform platform, CancellationToken stop)
    {
        var content = thing.Content;
        if (content.Table is { } table)
        {
            var roles = RolesOf(table, thing.Choice, platform);
            return ListingExports.Read(content.Path, table.Look, table.Heads, roles, SeparatorsOf(table, roles, platform), platform, stop);
        }

        if (content.Page?.Listing is { } page)
            return [Of(page, platform)];
        if (content.IsJson)
        {
            if (new FileInfo(content.Path).Length > MostText)
                throw HeadedRow.Wrong($"This file is larger than {MostText >> 20} MB, the limit for JSON.");
            var json = FileText.Decode(await File.ReadAllBytesAsync(content.Path, stop));
            var read = HtmlPages.ListingsIn(json);
            return read.Count > 0
                ? [.. read.Select(r => Of(r, platform))]
                : throw HeadedRow.Wrong("There is no schema.org product in this file.");
        }

        return [LabelledText.Read(content.Text ?? "", platform)];
    }

    private static ListingExports.Listing Of(ReadListing page, Platform platform)
    {
        var fields = new JsonObject();
        void Set(string role, Func<Field, JsonNode?> value)
        {
            if (platform.Role(role) is { } field && value(field) is { } set)
                fields[field.Key] = set;
        }

        Set("title", _ => page.Title);
        Set("heading", _ => page.Title);
        Set("tags", _ => Items(page.Tags));
        Set("bullets", f => f.Shape == FieldShape.Lines ? Items(page.Bullets) : null);
        Set("category", _ => Items(page.Category));
        Set(
            "body",
            f =>
                page.Description is null ? null
                : f.Shape == FieldShape.Rich ? Rich(page.Description)
                : page.Description
        );
        foreach (var field in platform.Fields.Where(f => f.Shape == FieldShape.Choices))
        {
            var chosen = new JsonObject();
            foreach (var rule in field.Attributes)
                if (page.Attributes.FirstOrDefault(a => Tokens.Key(a.Key) == Tokens.Key(rule.Name)).Value is { Length: > 0 } value)
                    chosen[rule.Name] = value;
            if (chosen.Count > 0)
                fields[field.Key] = chosen;
        }

        return new(
            1,
            "",
            page.Title,
            fields,
            new(
                Price: page.Price,
                Currency: page.Price is null ? "" : page.Currency ?? "",
                Address: page.Address ?? "",
                Pictures: page.Images.Select(i => i.Address).OfType<string>().ToList() is { Count: > 0 } pictures ? pictures : null
            )
        );

        static JsonArray? Items(IReadOnlyList<string> texts) => texts.Count == 0 ? null : new([.. texts.Select(t => (JsonNode)t)]);
        static JsonNode Rich(string text) => string.Concat(text.Split('\n').Select(l => $"<p>{System.Net.WebUtility.HtmlEncode(l)}</p>"));
    }

    private Platform? PlatformOf(DroppedThing thing) => db.Platforms.Find(thing.Market.PlatformId)?.Profile;

    private static string[] RolesOf(DropTable table, DropChoice choice, Platform platform)
    {
        var guess = ListingColumns.Guess(table.Heads, i => table.Column(i).Take(50), platform);
        return TableRoles.Of(table, choice, i => guess[i]);
    }

    private static string[] SeparatorsOf(DropTable table, string[] roles, Platform platform) =>
        [
            .. roles.Select(
                (role, i) =>
                    ListingColumns.FieldOf(role) is var (key, attribute) && platform.Find(key) is { } field
                        ? attribute is null && !ListingColumns.IsList(role, platform)
                            ? ""
                            : attribute is not null
                                ? (table.Column(i).Any(c => c.Contains(" / ", StringComparison.Ordinal)) ? " / " : "")
                                : ListingColumns.SeparatorOf(table.Column(i), field)
                        : role == ListingColumns.Picture && table.Column(i).Any(c => c.Contains(','))
                            ? ","
                            : ""
            ),
        ];

    private static string Short(string text) =>
        text.Length == 0 ? "empty"
        : text.Length <= 40 ? text.ReplaceLineEndings(", ")
        : text[..39].ReplaceLineEndings(", ") + "…";
}
