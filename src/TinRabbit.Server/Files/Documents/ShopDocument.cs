using System.Text.Json.Serialization;
using System.Text.Json.Serialization.Metadata;

namespace TinRabbit.Server.Files.Documents;

/// <summary>A shop, or a part of it, as a file: what is null or missing is left as it is when it is imported.</summary>
/// <param name="Format">Always <see cref="Name"/>.</param>
/// <param name="Version">The version of the format; a newer program reads older ones.</param>
/// <param name="Platforms">Profiles of the seller's own platforms.</param>
/// <param name="Redirects">Old slugs, and the slug that each leads to.</param>
/// <param name="Filters">Saved filters by name.</param>
/// <param name="Notes">Change notes about no product.</param>
/// <param name="Shapes">How marketplaces' own exports are laid out.</param>
public sealed record ShopDocument(
    string Format,
    int Version,
    DocumentShop? Shop = null,
    DocumentSite? Site = null,
    IReadOnlyList<DocumentPlatform>? Platforms = null,
    IReadOnlyList<DocumentProduct>? Products = null,
    IReadOnlyDictionary<string, string>? Redirects = null,
    IReadOnlyDictionary<string, string>? Filters = null,
    [MaxLength(Bounds.Notes)] IReadOnlyList<DocumentNote>? Notes = null,
    [MaxLength(Bounds.List)] IReadOnlyList<DocumentShape>? Shapes = null
)
{
    /// <summary>The terms of its shelves, which stand in a file of their own.</summary>
    [JsonIgnore]
    public IReadOnlyList<DocumentTerm> Terms { get; init; } = [];

    /// <summary>What was brought in of markets, which stands in a file of its own.</summary>
    [JsonIgnore]
    public IReadOnlyList<DocumentRecording> Recordings { get; init; } = [];

    /// <summary>What a file of this format says of itself.</summary>
    public const string Name = "tin-rabbit-shop";

    /// <summary>The version that this program writes.</summary>
    public const int Latest = 2;

    /// <summary>How it is written.</summary>
    public static readonly JsonSerializerOptions Json = new(JsonSerializerDefaults.Web)
    {
        WriteIndented = true,
        DefaultIgnoreCondition = JsonIgnoreCondition.WhenWritingNull,
        Encoder = System.Text.Encodings.Web.JavaScriptEncoder.UnsafeRelaxedJsonEscaping,
        RespectNullableAnnotations = true,
        TypeInfoResolver = new DefaultJsonTypeInfoResolver { Modifiers = { RequestValidation.MarkRequired } },
        Converters = { new JsonStringEnumConverter(JsonNamingPolicy.CamelCase, allowIntegerValues: false) },
    };

    /// <summary>A document of some products.</summary>
    public static ShopDocument Of(params IReadOnlyList<DocumentProduct> products) => new(Name, Latest, Products: products);

    /// <summary>Reads a document.</summary>
    /// <exception cref="InvalidInputException">It is no such document, of a newer program, or beyond a bound.</exception>
    public static ShopDocument Read(Stream json)
    {
        try
        {
            using var given = GivenJson.Parse(json);
            var document = given.Deserialize<ShopDocument>(Json);
            if (document?.Format != Name)
                throw Wrong("This JSON is no shop of Tin Rabbit.");
            if (document.Version > Latest)
                throw Wrong($"This shop was exported by a newer version of Tin Rabbit (format {document.Version}). Update this one first.");
            RequestValidation.ThrowIfOutOfBounds(document);
            return document.Redirects is not { Count: > Bounds.List }
                ? document
                : throw Wrong($"This shop has {document.Redirects.Count:#,0} redirects; the most is {Bounds.List:#,0}.");
        }
        catch (JsonException e)
        {
            throw Wrong($"The shop can’t be read: {e.Message}");
        }
    }

    private static InvalidInputException Wrong(string message) => new([new("file", message)]);
}
