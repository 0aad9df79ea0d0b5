using TinRabbit.Core.Rivals;
using TinRabbit.Server.Markets;
using TinRabbit.Server.Picks;
using TinRabbit.Server.Rivals;
using TinRabbit.Server.Shelf;

namespace TinRabbit.Server.Features.Weigh;

/// <summary>A draft that is compared with the first listings that a market finds.</summary>
/// <param name="Term">The term to find them by; null for the listing's lead, or its most searched pick.</param>
/// <param name="Text">Which of their texts the words are of.</param>
public sealed record TopRequest(string MarketId, JsonElement? Fields, [Term] string? Term = null, TopText Text = TopText.Title);

/// <summary>A text of the first listings.</summary>
public enum TopText
{
    /// <summary>Their titles.</summary>
    Title,

    /// <summary>Their tags.</summary>
    Tags,

    /// <summary>Their descriptions.</summary>
    Description,
}

/// <summary>What the first listings for a term fill and how they word a text.</summary>
/// <param name="Term">The term; empty where there is no pick to search for.</param>
/// <param name="Found">How many listings the market finds; null where that is unknown.</param>
/// <param name="Looked">How many of them are compared; null where what the search finds is unknown.</param>
/// <param name="Attributes">The platform's attributes, those that most of them fill first.</param>
/// <param name="Words">The words of the text that was asked for, the most used first.</param>
/// <param name="Seen">When the seller saw them; null where the market answered just now.</param>
/// <param name="Described">How many of them show their attributes; the shares are of those.</param>
/// <param name="Texts">How many of them show the text that was asked for.</param>
public sealed record TopView(
    string Term,
    long? Found,
    int? Looked,
    IReadOnlyList<AttributeAmongTop> Attributes,
    IReadOnlyList<TopWord> Words,
    SeenAt? Seen = null,
    int? Described = null,
    int? Texts = null
);

/// <summary>An attribute.</summary>
/// <param name="Field">The key of the field that it is in.</param>
/// <param name="Share">The share of the listings that fill it, 0–1.</param>
/// <param name="Mine">The listing's own values.</param>
/// <param name="IsOpen">Whether the listing's category has it.</param>
public sealed record AttributeAmongTop(
    string Name,
    string Field,
    double Share,
    IReadOnlyList<string> Mine,
    bool IsOpen,
    IReadOnlyList<TopValue> Values
);

/// <summary>A value of an attribute.</summary>
/// <param name="Held">How many of the listings have it.</param>
/// <param name="Share">Their share, 0–1.</param>
/// <param name="ByFacts">Whether the product's facts say it, do not mention it, or lack what it claims.</param>
/// <param name="Value">The field's value with it filled; null where it cannot be.</param>
public sealed record TopValue(
    string Text,
    int Held,
    double Share,
    FactSupport ByFacts,
    IReadOnlyList<FigureDifference> Differences,
    JsonNode? Value
);

/// <summary>A word or pair of words in the texts.</summary>
/// <param name="Key">As a term.</param>
/// <param name="Rank">The mean rank of the listings that have it.</param>
/// <param name="Price">The median price of the listings that have it; null where none shows one.</param>
/// <param name="IsMine">Whether the same text of the listing has it.</param>
/// <param name="Numbers">What the market's shelf knows of it as a term; null where it does not know it.</param>
public sealed record TopWord(
    string Text,
    string Key,
    int Held,
    double Share,
    double Rank,
    double? Price,
    bool IsMine,
    Measured? Numbers,
    IReadOnlyList<FigureDifference> Differences
);

internal static class TopApi
{
    private const int MostWords = 60;

    public static void MapTop(this IEndpointRouteBuilder app) => app.MapPost("/api/listings/{id:int}/top", CompareWithTop);

    private static async Task<TopView> CompareWithTop(
        int id,
        TopRequest request,
        TinContext db,
        PreparedPicksCache ready,
        TopListings top,
        Shelves shelves,
        CancellationToken stop
    )
    {
        var open = await OpenDraft.Open(db, ready, id, new(request.MarketId, request.Fields), stop).OrNotThere();
        if (DraftRivals.TermOf(open, request.Term) is not { } term)
            return new TopView("", null, null, [], []);
        if (await top.Of(request.MarketId, term, stop) is not { } page)
            return new TopView(term, null, null, [], []);
        RivalListing[] rivals = [.. page.Ranked().Select(RivalStates.Figures)];
        var words = await Words(open, rivals, request, db, shelves, stop);
        RivalListing[] described = [.. rivals.Where(r => r.Attributes.Count > 0)];
        return new TopView(
            term,
            page.Found,
            rivals.Length,
            Attributes(open, described),
            words,
            page.Seen,
            described.Length,
            rivals.Count(r => TextsOf(r, request.Text).Any())
        );
    }

    private static IEnumerable<string> TextsOf(RivalListing rival, TopText text) =>
        text switch
        {
            TopText.Title => [rival.Title],
            TopText.Tags => rival.Tags,
            _ => rival.Description.Length > 0 ? [rival.Description] : [],
        };

    private static string RoleOf(TopText text) =>
        text switch
        {
            TopText.Title => "title",
            TopText.Tags => "tags",
            _ => "body",
        };

    private static async Task<List<TopWord>> Words(
        OpenDraft open,
        RivalListing[] rivals,
        TopRequest request,
        TinContext db,
        Shelves shelves,
        CancellationToken stop
    )
    {
        var found = RivalWords
            .Of(rivals, r => TextsOf(r, request.Text))
            .Take(MostWords)
            .Select(w => (Word: w, Key: Tokens.Key(w.Text)))
            .ToList();
        var known = await shelves.MeasuredOf(db, request.MarketId, [.. found.Select(w => w.Key)], stop);
        var mine =
            open.Platform.Role(RoleOf(request.Text)) is { } field && open.Copy.GetValueOrDefault(field.Key) is { } value
                ? string.Concat(value.Units(field.Shape).Select(u => Folded(open, u)))
                : "";
        return
        [
            .. found.Select(w => new TopWord(
                w.Word.Text,
                w.Key,
                w.Word.Held,
                w.Word.Share,
                w.Word.Rank,
                w.Word.Price,
                mine.Contains(Folded(open, w.Word.Text), StringComparison.Ordinal),
                known.TryGetValue(w.Key, out var term) ? term.Numbers : null,
                w.Word.Differences
            )),
        ];
    }

    // The words as this platform's search compares them: where it folds plurals, a title with "boxes" has "box".
    private static string Folded(OpenDraft open, string text) =>
        $" {string.Join(' ', Tokens.Of(text).Select(t => Fold.Key(t.Word, open.Platform.Search.Folds)))} ";

    private static IReadOnlyList<AttributeAmongTop> Attributes(OpenDraft open, RivalListing[] rivals)
    {
        var values = AttributeValues.Of(rivals).ToLookup(v => v.Attribute);
        var path = open.Platform.Fields.FirstOrDefault(f => f.Shape == FieldShape.Path) is { } category
            ? open.Copy.GetValueOrDefault(category.Key)?.Units(category.Shape) ?? []
            : [];
        return
        [
            .. open
                .Platform.Fields.Where(f => f.Shape == FieldShape.Choices)
                .SelectMany(field => field.Attributes.Select(rule => Attribute(open, rivals, field, rule, path, [.. values[rule.Name]])))
                .OrderByDescending(a => a.IsOpen)
                .ThenByDescending(a => a.Share),
        ];
    }

    private static AttributeAmongTop Attribute(
        OpenDraft open,
        RivalListing[] rivals,
        Field field,
        AttributeRule rule,
        IReadOnlyList<string> path,
        IReadOnlyList<AttributeValue> values
    )
    {
        var filled = open.Copy.GetValueOrDefault(field.Key) is FieldValue.Choices choices
            ? choices.Values
            : new Dictionary<string, IReadOnlyList<string>>();
        var isOpen = rule.OpenIn(path);
        return new(
            rule.Name,
            field.Key,
            rivals.Length == 0 ? 0 : (double)rivals.Count(r => r.Attributes.ContainsKey(rule.Name)) / rivals.Length,
            filled.GetValueOrDefault(rule.Name) ?? [],
            isOpen,
            [
                .. values.Select(v =>
                {
                    var support = Support(v.Value, open);
                    var with = new FieldValue.Choices(new Dictionary<string, IReadOnlyList<string>>(filled) { [rule.Name] = [v.Value] });
                    var may =
                        isOpen
                        && support != FactSupport.Denies
                        && (rule.Options.Count == 0 || rule.Options.Contains(v.Value))
                        && RoomUsed.Of(field, with).Fits;
                    return new TopValue(v.Value, v.Held, v.Share, support, v.Differences, may ? CopyJson.WriteValue(with) : null);
                }),
            ]
        );
    }

    private static FactSupport Support(string value, OpenDraft open)
    {
        var facts = open.Facts;
        if (Facets.Unbacked(value, facts).Count > 0 || new AvoidedTerms(open.Platform, open.Avoid).UsesIn(value) > 0)
            return FactSupport.Denies;
        var known = facts.ByFacet.Values.SelectMany(v => v).Append(facts.What).SelectMany(FactWords.KeysOf).ToHashSet();
        return FactWords.KeysOf(value).All(known.Contains) ? FactSupport.Says : FactSupport.Silent;
    }
}
