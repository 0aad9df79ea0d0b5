using AngleSharp.Dom;

namespace TinRabbit.Server.Files.Html.Reading;

/// <summary>What a page says of itself by schema.org: as JSON-LD, or as microdata in its elements.</summary>
internal sealed class StructuredData
{
    private const int MostNodes = 200_000;
    private const int Deepest = 32;

    private int _nodes;

    /// <summary>Products of the page, in its order.</summary>
    public List<JsonObject> Products { get; } = [];

    /// <summary>The path of pages above it.</summary>
    public List<string> Crumbs { get; } = [];

    /// <summary>Whether the products are items of a list.</summary>
    public bool IsList { get; private set; }

    /// <summary>Reads a page.</summary>
    public static StructuredData Of(IDocument document)
    {
        var data = new StructuredData();
        foreach (var script in document.QuerySelectorAll("script[type='application/ld+json' i]"))
            try
            {
                data.Take(
                    JsonNode.Parse(
                        script.TextContent,
                        documentOptions: new()
                        {
                            MaxDepth = 64,
                            CommentHandling = JsonCommentHandling.Skip,
                            AllowTrailingCommas = true,
                        }
                    ),
                    0
                );
            }
            catch (JsonException)
            {
                // What is no JSON says nothing; the visible page is read.
            }

        if (data.Products.Count == 0)
            foreach (
                var item in document
                    .QuerySelectorAll("[itemscope][itemtype]")
                    .Where(i => IsOf(i, "Product") && i.ParentElement?.Closest("[itemtype$='/Product']") is null)
            )
                data.Products.Add(Microdata(item, 0));
        if (data.Crumbs.Count == 0)
            data.Crumbs.AddRange(
                document
                    .QuerySelectorAll("[itemtype$='/BreadcrumbList'] [itemprop=name]")
                    .Select(e => Visible.Text(e))
                    .Where(t => t.Length > 0)
            );
        data.IsList |= data.Products.Count > 1;
        return data;
    }

    /// <summary>The first text of a member; null where there is none.</summary>
    public static string? Text(JsonObject item, string member) =>
        Texts(item[member]).FirstOrDefault() is { } text ? Visible.Line(text) : null;

    /// <summary>The texts of a value: of a list all, of an object its name.</summary>
    public static IEnumerable<string> Texts(JsonNode? node) =>
        node switch
        {
            JsonValue value when value.TryGetValue<string>(out var text) => [text],
            JsonValue value => [value.ToString()],
            JsonArray list => list.SelectMany(Texts),
            JsonObject item => Texts(item["name"] ?? item["url"]),
            _ => [],
        };

    /// <summary>The price and currency of a product's offer; null where it has none.</summary>
    public static (decimal Price, string? Currency, bool IsRange)? OfferOf(JsonObject product)
    {
        foreach (var offer in Objects(product["offers"]))
        {
            var (low, price) = (Text(offer, "lowPrice"), Text(offer, "price"));
            if (PriceText.Value(price ?? low ?? "") is { } value)
                return (value, Text(offer, "priceCurrency"), price is null && Text(offer, "highPrice") is { } high && high != low);
        }

        return null;
    }

    /// <summary>Mean stars and how many rated; null where they are not said.</summary>
    public static (double? Stars, int? Count) RatingOf(JsonObject product) =>
        Objects(product["aggregateRating"]).FirstOrDefault() is { } rating
            ? (
                PriceText.Value(Text(rating, "ratingValue") ?? "") is { } stars and >= 0 and <= 5 ? (double)stars : null,
                PriceText.Whole(Text(rating, "reviewCount") ?? Text(rating, "ratingCount") ?? "") is { } count and <= int.MaxValue
                    ? (int)count
                    : null
            )
            : (null, null);

    /// <summary>The objects of a value: itself, or those of a list.</summary>
    public static IEnumerable<JsonObject> Objects(JsonNode? node) =>
        node switch
        {
            JsonObject item => [item],
            JsonArray list => list.OfType<JsonObject>(),
            _ => [],
        };

    private void Take(JsonNode? node, int depth)
    {
        if (depth > Deepest || ++_nodes > MostNodes)
            return;
        switch (node)
        {
            case JsonArray list:
                foreach (var item in list)
                    Take(item, depth + 1);
                break;
            case JsonObject item when Is(item, "ItemList") || Is(item, "SearchResultsPage") || Is(item, "CollectionPage"):
                IsList = true;
                foreach (
                    var element in Objects(item["itemListElement"]).OrderBy(e => PriceText.Whole(Text(e, "position") ?? "") ?? int.MaxValue)
                )
                    Take(element["item"] is JsonObject inner ? Named(inner, element) : element, depth + 1);
                Take(item["mainEntity"], depth + 1);
                break;
            case JsonObject item when Is(item, "BreadcrumbList"):
                Crumbs.AddRange(
                    Objects(item["itemListElement"])
                        .Select(e => Text(e, "name") ?? (e["item"] is JsonObject at ? Text(at, "name") : null))
                        .OfType<string>()
                );
                break;
            case JsonObject item when Is(item, "Product"):
                if (Text(item, "name") is { Length: > 0 })
                    Products.Add(item);
                break;
            case JsonObject item:
                Take(item["@graph"], depth + 1);
                Take(item["mainEntity"], depth + 1);
                break;
        }
    }

    private static JsonObject Named(JsonObject inner, JsonObject element)
    {
        if (inner["url"] is null && element["url"] is { } url)
            inner["url"] = url.DeepClone();
        if (inner["@type"] is null)
            inner["@type"] = "Product";
        return inner;
    }

    private static bool Is(JsonObject item, string type) =>
        Texts(item["@type"]).Any(t => t == type || t.EndsWith("/" + type, StringComparison.Ordinal));

    private static bool IsOf(IElement element, string type) =>
        element.GetAttribute("itemtype")?.TrimEnd('/').EndsWith("/" + type, StringComparison.OrdinalIgnoreCase) == true;

    // Items within items, as the JSON that says the same.
    private static JsonObject Microdata(IElement item, int depth)
    {
        var data = new JsonObject { ["@type"] = item.GetAttribute("itemtype")?.Split('/')[^1] };
        foreach (var property in item.QuerySelectorAll("[itemprop]").Where(p => p.ParentElement?.Closest("[itemscope]") == item))
        {
            JsonNode? value = property.HasAttribute("itemscope")
                ? depth < Deepest
                    ? Microdata(property, depth + 1)
                    : null
                : property.GetAttribute("content")
                    ?? property.GetAttribute("href")
                    ?? property.GetAttribute("src")
                    ?? property.GetAttribute("datetime")
                    ?? Visible.Text(property);
            foreach (var name in property.GetAttribute("itemprop")!.Split(' ', StringSplitOptions.RemoveEmptyEntries))
                if (data[name] is JsonArray many)
                    many.Add(value?.DeepClone());
                else
                    data[name] = data[name] is { } first ? new JsonArray(first.DeepClone(), value?.DeepClone()) : value?.DeepClone();
        }

        return data;
    }
}
