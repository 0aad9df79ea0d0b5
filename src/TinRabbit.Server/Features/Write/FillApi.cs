using TinRabbit.Core.Filling;
using TinRabbit.Core.Filling.Tags;
using TinRabbit.Core.Filling.Titles;
using TinRabbit.Core.Filling.Words;
using TinRabbit.Server.Hosting;
using TinRabbit.Server.Picks;
using TinRabbit.Server.Shelf;

namespace TinRabbit.Server.Features.Write;

/// <summary>A suggestion for a field.</summary>
/// <param name="Value">The field's suggested value.</param>
/// <param name="Pieces">The parts that would be added, each optional; empty for a title.</param>
/// <param name="Limit">Room there is; null when there is no limit.</param>
/// <param name="Gain">For words: Σ demand·fit of the terms they make eligible.</param>
/// <param name="Bound">For words: an upper bound of the gain of any words that fit.</param>
/// <param name="Takes">For a title: the suggestions, the best first.</param>
/// <param name="LeftOut">Picks that are not used, with the reason.</param>
/// <param name="Note">Why room is left; null where little is.</param>
/// <param name="Offers">Terms on the shelf that would fit and that the facts allow, the most searched first.</param>
/// <param name="MoreOffers">How many more of them there are.</param>
public sealed record FillView(
    JsonNode? Value,
    IReadOnlyList<string> Pieces,
    int? Limit,
    double? Gain,
    double? Bound,
    IReadOnlyList<Take> Takes,
    IReadOnlyList<LeftOutView> LeftOut,
    string? Note = null,
    IReadOnlyList<ReadTerm>? Offers = null,
    int MoreOffers = 0
);

/// <summary>Parts of a suggestion that are to be used.</summary>
/// <param name="Fields">The draft that they go into; null for the listing as it is saved.</param>
/// <param name="Pieces">Some of <see cref="FillView.Pieces"/>, in their order.</param>
public sealed record PiecesRequest(
    string MarketId,
    JsonElement? Fields,
    [MaxLength(Bounds.List), EachMaxLength(Bounds.TextLength)] IReadOnlyList<string> Pieces
);

/// <summary>What a field would be.</summary>
public sealed record ValueView(JsonNode? Value);

/// <summary>A text to read.</summary>
/// <param name="Fields">The draft that it is the title of; null for the listing as it is saved.</param>
public sealed record ReadTextRequest(string MarketId, [MaxLength(Bounds.ReadLength)] string Text, JsonElement? Fields = null);

/// <summary>Known terms in a text, and those it could contain.</summary>
/// <param name="Holds">Known terms in it as a phrase.</param>
/// <param name="Could">Known terms that it would contain in a better order.</param>
/// <param name="Mix">How many of <paramref name="Holds"/> have low, medium, high and unknown competition.</param>
public sealed record TextReadView(IReadOnlyList<ReadTerm> Holds, IReadOnlyList<CouldHold> Could, CompetitionMix Mix);

/// <summary>A known term that a text would contain in another order, and that text.</summary>
/// <param name="Gain">The change of the listing's grip with that text; null where it was not computed.</param>
public sealed record CouldHold(ReadTerm Term, string? Text, double? Gain);

internal static class FillApi
{
    public static void MapFill(this IEndpointRouteBuilder app)
    {
        app.MapPost("/api/listings/{id:int}/fill/{field}", FillField).WithRequestTimeout(ProblemAnswers.Computes);
        app.MapPost("/api/listings/{id:int}/fill/{field}/pieces", PutPieces);
        app.MapPost("/api/listings/{id:int}/read", ReadText).WithRequestTimeout(ProblemAnswers.Computes);
    }

    private static async Task<FillView> FillField(
        int id,
        string field,
        DraftOf draft,
        TinContext db,
        PreparedPicksCache ready,
        Shelves shelves,
        CancellationToken stop
    )
    {
        var open = await OpenDraft.Open(db, ready, id, draft, stop).OrNotThere();
        var rule = FieldOf(open, field);
        var (fill, value) = Fill(open, rule, stop);
        return await FillAdvice.Add(fill, value, open, rule, draft.MarketId, db, shelves, stop);
    }

    private static async Task<ValueView> PutPieces(
        int id,
        string field,
        PiecesRequest request,
        TinContext db,
        PreparedPicksCache ready,
        CancellationToken stop
    )
    {
        var open = await OpenDraft.Open(db, ready, id, new(request.MarketId, request.Fields), stop).OrNotThere();
        var rule = FieldOf(open, field);
        if (rule.Shape is not (FieldShape.Words or FieldShape.Line or FieldShape.Lines or FieldShape.Text))
            throw new InvalidInputException([new("field", $"{rule.Label} is not a field for separate words.")]);
        var value = WordsFill.With(open.Platform, rule, open.Copy.GetValueOrDefault(rule.Key), request.Pieces);
        return new ValueView(CopyJson.WriteValue(value));
    }

    private static Field FieldOf(OpenDraft open, string field) =>
        open.Platform.Find(field) ?? throw new InvalidInputException([new("field", $"{open.Platform.Name} has no field \"{field}\".")]);

    private static async Task<TextReadView> ReadText(
        int id,
        ReadTextRequest request,
        TinContext db,
        PreparedPicksCache ready,
        Shelves shelves,
        CancellationToken stop
    )
    {
        var open = await OpenDraft.Open(db, ready, id, new(request.MarketId, request.Fields), stop).OrNotThere();
        // What the market knows of its phrases is asked for first, looked up before or not.
        await shelves.MeasureTyped(db, request.MarketId, [.. WordRuns.In(request.Text), .. WordRuns.OtherOrders(request.Text)], stop);
        var read = await shelves.Read(db, request.MarketId, open.Platform, request.Text, stop);
        return TitleReading.Of(open, request.Text, read, stop);
    }

    private static (FillView Fill, FieldValue? Value) Fill(OpenDraft open, Field field, CancellationToken stop)
    {
        var input = new FillInput(open.Platform, open.Copy, field.Key, open.Picks.Wanted, open.Avoid)
        {
            Lead = open.Lead,
            Facts = open.Facts,
        };
        if (field is { Role: "title", Shape: FieldShape.Line })
        {
            var title = TitleFill.Of(input, stop);
            return View(
                title.Takes.Count > 0 ? new FieldValue.Text(title.Takes[0].Text) : open.Copy.GetValueOrDefault(field.Key),
                [],
                title.LeftOut,
                takes: title.Takes
            );
        }

        if (field.IsMaterials)
        {
            var (items, added) = FillAdvice.Materials(open, field);
            return View(new FieldValue.Items(items), added, []);
        }

        if (field.Shape == FieldShape.Phrases)
        {
            var phrases = TagsFill.Of(input, stop);
            return View(new FieldValue.Items(phrases.Items), phrases.Added, phrases.LeftOut);
        }

        var words = WordsFill.Of(input, stop);
        return View(words.Value, words.Words, words.LeftOut, words.Gain, words.Bound);

        (FillView, FieldValue?) View(
            FieldValue? value,
            IReadOnlyList<string> pieces,
            IReadOnlyList<LeftOut> leftOut,
            double? gain = null,
            double? bound = null,
            IReadOnlyList<Take>? takes = null
        ) =>
            (
                new(
                    value is null ? null : CopyJson.WriteValue(value),
                    pieces,
                    field.Limit?.Max,
                    gain,
                    bound,
                    takes ?? [],
                    LeftOutView.Of(leftOut)
                ),
                value
            );
    }
}
