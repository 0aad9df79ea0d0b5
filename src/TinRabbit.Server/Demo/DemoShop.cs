using System.Text.Json.Serialization;
using TinRabbit.Server.Journal;
using TinRabbit.Server.Listings;
using TinRabbit.Server.Pictures;

namespace TinRabbit.Server.Demo;

/// <summary>The made-up shop of the demo, as it ships with the program. Its listings and pages need work, each in a way that sellers know.</summary>
/// <param name="Name">The shop's name.</param>
/// <param name="Heads">By platform: terms dug in its markets before the first visit, so that its shelves have something to compare with.</param>
/// <param name="Products">What it sells, with the listings.</param>
/// <param name="Reviews">What made-up buyers wrote about its listings.</param>
/// <param name="Past">What was changed in the last months.</param>
/// <param name="Import">A table that was imported: what its listings earned by some terms.</param>
/// <param name="Pages">The pages of its web shop, parents first.</param>
internal sealed record DemoShop(
    string Name,
    IReadOnlyDictionary<string, string[]> Heads,
    IReadOnlyList<DemoShop.Product> Products,
    IReadOnlyList<DemoShop.Reviewed> Reviews,
    IReadOnlyList<DemoShop.Change> Past,
    DemoShop.ImportedTable Import,
    IReadOnlyList<DemoShop.Page> Pages
)
{
    private const string File = "TinRabbit.Server.Demo.shop.json";

    private static readonly JsonSerializerOptions Format = new(JsonSerializerDefaults.Web)
    {
        Converters = { new JsonStringEnumConverter() },
    };

    /// <summary>The shop that ships.</summary>
    public static DemoShop Shipped { get; } = Read();

    /// <summary>Terms of the web market that the pages are about.</summary>
    public IReadOnlyList<string> PageTerms => [.. Pages.SelectMany(p => (p.Picks ?? []).Append(p.Lead)).OfType<string>().Distinct()];

    /// <summary>Its rows, with products and listings.</summary>
    public ShopRow ToRow(DateTime at)
    {
        var shop = new ShopRow { Name = Name };
        foreach (var made in Products)
        {
            var product = new ProductRow { Name = made.Name, Facts = made.Facts };
            product.Pictures.AddRange(made.Pictures.Select((d, i) => new PictureRow { Description = d, Order = i }));
            foreach (var (platform, fields) in made.Listings)
                ListingEditor.Add(product, platform, at, ListingText.Of(fields));
            shop.Products.Add(product);
        }

        return shop;
    }

    /// <summary>A drawing that ships with the program.</summary>
    public static Stream Drawing(string name) =>
        typeof(DemoShop).Assembly.GetManifestResourceStream($"TinRabbit.Server.Demo.Pictures.{name}.png")!;

    private static DemoShop Read()
    {
        using var stream = typeof(DemoShop).Assembly.GetManifestResourceStream(File)!;
        return JsonSerializer.Deserialize<DemoShop>(stream, Format)!;
    }

    /// <summary>A product with its listings by platform, and what the seller has picked for it so far; the first pick is the lead.</summary>
    /// <param name="Pictures">The alt text of each picture.</param>
    /// <param name="PictureFiles">The drawing of each that ships with the program.</param>
    internal sealed record Product(
        string Name,
        Facts Facts,
        IReadOnlyList<string> Pictures,
        IReadOnlyList<string> PictureFiles,
        IReadOnlyDictionary<string, JsonObject> Listings,
        IReadOnlyList<Pick>? Picks
    );

    /// <summary>A pick, and the term under which it was found.</summary>
    internal sealed record Pick(string Text, Fit Fit, Home Home, string Source);

    /// <summary>A table of what listings earned.</summary>
    internal sealed record ImportedTable(string Source, string Market, IReadOnlyList<Earned> Rows);

    /// <summary>What listings earned by a term.</summary>
    internal sealed record Earned(string Text, long Clicks, long Orders, decimal Sales);

    /// <summary>What buyers wrote about a listing: each review is one or two of these sentences.</summary>
    internal sealed record Reviewed(string Product, string Platform, IReadOnlyList<Sentence> Sentences);

    /// <summary>A sentence with its stars, 1 to 5.</summary>
    internal sealed record Sentence(double Stars, string Text);

    /// <summary>The past of a listing.</summary>
    /// <param name="Head">What its terms are looked up by, besides its product’s picks.</param>
    /// <param name="DaysAgo">When it was changed.</param>
    /// <param name="TextDaysAgo">When its text was changed, where that was at another time.</param>
    /// <param name="Before">Its text before; null where the text stayed.</param>
    /// <param name="Note">What else was changed.</param>
    /// <param name="NoteText">What the seller wrote.</param>
    internal sealed record Change(
        string Product,
        string Platform,
        string Country,
        string Head,
        int DaysAgo,
        JsonObject? Before,
        NoteKind? Note,
        string? NoteText,
        int? TextDaysAgo
    )
    {
        public string MarketId => $"{Platform}-{Country}";
    }

    /// <summary>A page of the web shop; what is not given is empty. A link names its page in braces.</summary>
    internal sealed record Page(
        PageKind Kind,
        string Name,
        string? Inside,
        string? Lead,
        string? Title,
        string? Meta,
        string? Slug,
        string? Body,
        string? Menu,
        string? Product,
        bool Published = true,
        IReadOnlyList<string>? Picks = null
    );
}
