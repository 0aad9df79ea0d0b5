using System.ComponentModel.DataAnnotations;
using System.Text.Json;
using System.Text.Json.Nodes;
using System.Text.Json.Serialization;
using System.Text.Json.Serialization.Metadata;
using TinRabbit.Core;
using TinRabbit.Core.Measures;
using TinRabbit.Core.Pages;
using TinRabbit.Core.Platforms;
using TinRabbit.Server.Listings;
using TinRabbit.Server.Requests;

namespace TinRabbit.Server.Files.Documents;

/// <summary>A shop, or a part of it, as a file: what is null or missing is left as it is when it is imported.</summary>
/// <param name="Format">Always <see cref="Name"/>.</param>
/// <param name="Version">The version of the format; a newer program reads older ones.</param>
/// <param name="Platforms">Profiles of the seller's own platforms.</param>
/// <param name="Redirects">Old slugs, and the slug that each leads to.</param>
public sealed record ShopDocument(
    string Format,
    int Version,
    DocumentShop? Shop = null,
    DocumentSite? Site = null,
    IReadOnlyList<DocumentPlatform>? Platforms = null,
    IReadOnlyList<DocumentProduct>? Products = null,
    IReadOnlyDictionary<string, string>? Redirects = null
)
{
    /// <summary>What a file of this format says of itself.</summary>
    public const string Name = "tin-rabbit-shop";

    /// <summary>The version that this program writes.</summary>
    public const int Latest = 1;

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

/// <summary>The shop's settings.</summary>
public sealed record DocumentShop([MaxLength(Bounds.NameLength)] string Name, [MaxLength(3)] string Currency);

/// <summary>The web shop's settings.</summary>
public sealed record DocumentSite(
    [MaxLength(Bounds.NameLength)] string Brand,
    [MaxLength(Bounds.NoteLength)] string Address,
    [MaxLength(20)] string Language,
    [MaxLength(2)] string Country,
    [MaxLength(60)] string TitleSuffix
);

/// <summary>A platform of the seller's own.</summary>
/// <param name="Like">The id of the shipped platform that it resembles.</param>
public sealed record DocumentPlatform(JsonObject Profile, [MaxLength(Bounds.NameLength)] string Like);

/// <summary>A product, or what a page is about.</summary>
public sealed record DocumentProduct(
    string Name,
    bool IsPage = false,
    Facts? Facts = null,
    [MaxLength(Bounds.Pictures)] IReadOnlyList<DocumentPicture>? Pictures = null,
    [MaxLength(Bounds.Picks)] IReadOnlyList<DocumentPick>? Picks = null,
    IReadOnlyList<DocumentListing>? Listings = null,
    DocumentPage? Page = null
);

/// <summary>A picture.</summary>
/// <param name="Shows">What it shows; null leaves what the shop has.</param>
/// <param name="File">The name of its file in the folder pictures; null leaves the file that the shop has.</param>
public sealed record DocumentPicture(
    [MaxLength(Bounds.NoteLength)] string Alt,
    [MaxLength(Bounds.NoteLength)] string? Shows = null,
    [MaxLength(Bounds.NameLength)] string? File = null
);

/// <summary>A pick.</summary>
/// <param name="FitByHand">Whether the seller chose the fit; documents from before say nothing, and keep theirs.</param>
public sealed record DocumentPick(
    [Term] string Text,
    Fit Fit = Fit.Core,
    [property: JsonConverter(typeof(HomeJson))] Home Home = Home.Anywhere,
    [MaxLength(Bounds.NoteLength)] string Note = "",
    [MaxLength(Bounds.TermLength)] string Source = "",
    [MaxLength(Bounds.NoteLength)] string SaidBy = "",
    [MaxLength(20)] string Language = "",
    bool FitByHand = true
);

/// <summary>A listing.</summary>
/// <param name="Fields">Its texts by field.</param>
/// <param name="Takes">Titles that were saved.</param>
public sealed record DocumentListing(
    string Platform,
    JsonObject Fields,
    [Term] string? Lead = null,
    IReadOnlyList<DocumentTake>? Takes = null
);

/// <summary>A saved title.</summary>
public sealed record DocumentTake([MaxLength(Bounds.ReadLength)] string Text, [MaxLength(Bounds.NameLength)] string Name = "");

/// <summary>A page's place in the shop.</summary>
/// <param name="Id">Its number in this document: links in texts name it as <c>page:12</c>.</param>
/// <param name="Parent">The number of the page that it is inside; null at the top.</param>
public sealed record DocumentPage(
    int Id,
    PageKind Kind,
    int? Parent = null,
    int Order = 0,
    IReadOnlyList<int>? AlsoIn = null,
    bool IsHome = false,
    bool InMenu = true,
    bool IsPublished = false,
    bool HasSuffix = true,
    string? LiveSlug = null
);
