using System.Text.Json.Nodes;
using Microsoft.AspNetCore.Http.HttpResults;
using TinRabbit.Core.Filling;
using TinRabbit.Core.Measures;
using TinRabbit.Core.Platforms;
using TinRabbit.Server.Storage;

namespace TinRabbit.Server.Write;

/// <summary>A suggestion for a field.</summary>
/// <param name="Value">What the field would be.</param>
/// <param name="Pieces">What would be added, each to be taken or left; for a title, nothing.</param>
/// <param name="Used">Room used with it; null for a list.</param>
/// <param name="Limit">Room there is; null when there is no limit.</param>
/// <param name="Gain">For words: Σ volume·fit of what they open.</param>
/// <param name="Bound">For words: no words that fit could gain more.</param>
/// <param name="Opens">Picks that it opens, with their searches a month.</param>
/// <param name="Left">Picks that stay missing.</param>
/// <param name="Reach">The listing's with it, 0–100.</param>
/// <param name="Grip">The listing's with it, 0–100.</param>
/// <param name="ReachNow">The listing's without it.</param>
/// <param name="GripNow">The listing's without it.</param>
/// <param name="Takes">For a title: the tries, the best first.</param>
public sealed record FillView(
    JsonNode? Value, IReadOnlyList<string> Pieces, int? Used, int? Limit, double? Gain, double? Bound, IReadOnlyList<OpenedPick> Opens, IReadOnlyList<string> Left,
    double Reach, double Grip, double ReachNow, double GripNow, IReadOnlyList<Take> Takes);

/// <summary>A pick that a fill opens.</summary>
public sealed record OpenedPick(string Text, double? Volume);

/// <summary>A text to read.</summary>
public sealed record ReadTextRequest(string MarketId, string Text);

/// <summary>What a text holds, and what it could.</summary>
/// <param name="Holds">Known terms that stand in it as a phrase.</param>
/// <param name="Could">Known terms that would in another order.</param>
public sealed record TextReadView(IReadOnlyList<ReadTerm> Holds, IReadOnlyList<CouldHold> Could);

/// <summary>A known term that a text would hold, and the text that does.</summary>
public sealed record CouldHold(ReadTerm Term, string? Text);

internal static class FillApi
{
    private const int MostShown = 60;

    public static void MapFill(this IEndpointRouteBuilder app)
    {
        app.MapPost("/api/listings/{id:int}/fill/{field}", async Task<Results<Ok<FillView>, NotFound>> (int id, string field, DraftOf draft, TinContext db, ReadyPicksCache ready, CancellationToken stop) =>
        {
            if (await OpenDraft.Open(db, ready, id, draft, stop) is not { } open)
                return TypedResults.NotFound();
            var rule = open.Platform.Find(field) ?? throw new FormatProblems([new("field", $"{open.Platform.Name} has no field \"{field}\".")]);
            return TypedResults.Ok(Fill(open, rule));
        }).WithName("FillField").WithTags("Write").ProducesValidationProblem();

        app.MapPost("/api/listings/{id:int}/read", async Task<Results<Ok<TextReadView>, NotFound>> (int id, ReadTextRequest request, TinContext db, Shelves shelves, CancellationToken stop) =>
        {
            if (await db.FindListing(id, stop) is not { } listing || !shelves.Knows(request.MarketId))
                return TypedResults.NotFound();
            var platform = PlatformJson.Read(listing.Platform.Profile);
            var read = await shelves.Read(db, request.MarketId, platform, request.Text, stop);
            var separator = platform.Fields.FirstOrDefault(f => f.Role == "title")?.Separator ?? ", ";
            return TypedResults.Ok(new TextReadView(
                [.. read.Holds.Take(MostShown)],
                [.. read.Could.Take(MostShown).Select(t => new CouldHold(t, Reorder.So(request.Text, t.Text, platform.Search.Folds, separator)))]));
        }).WithName("ReadText").WithTags("Write");
    }

    private static FillView Fill(OpenDraft open, Field field)
    {
        var (platform, copy, wanted) = (open.Platform, open.Copy, open.Picks.Wanted);
        var now = Core.Measures.Weigh.Listing(open.Picks.Terms, copy, wanted);
        var volumes = wanted.DistinctBy(w => w.Text).ToDictionary(w => w.Text, w => w.Volume);
        // What the seller wants in the backend, the bullets or the body is not said in title or tags, but counts.
        var elsewhere = wanted.Zip(open.Picks.Homes).Where(p => p.Second is Home.Backend or Home.Bullets or Home.Body).Select(p => p.First.Text).ToHashSet();
        if (field is { Role: "title", Shape: FieldShape.Line })
        {
            var takes = TitleFill.Of(platform, copy, field.Key, wanted, open.Avoid, open.Lead, elsewhere);
            FieldValue? best = takes.Count > 0 ? new FieldValue.Text(takes[0].Text) : copy.GetValueOrDefault(field.Key);
            return View(best, [], takes.FirstOrDefault()?.Used, null, null, [], [], takes);
        }

        if (field.Shape == FieldShape.Phrases)
        {
            var phrases = PhrasesFill.Of(platform, copy, field.Key, wanted, open.Avoid, open.Lead, elsewhere);
            return View(new FieldValue.Items(phrases.Items), phrases.Added, null, null, null, phrases.Opens, phrases.Left, []);
        }

        var words = WordsFill.Of(platform, copy, field.Key, wanted, open.Avoid);
        return View(words.Value, words.Words, words.Used, words.Gain, words.Bound, words.Opens, words.Left, []);

        FillView View(FieldValue? value, IReadOnlyList<string> pieces, int? used, double? gain, double? bound, IReadOnlyList<string> opens, IReadOnlyList<string> left, IReadOnlyList<Take> takes)
        {
            var with = new Dictionary<string, FieldValue>(copy);
            if (value is not null)
                with[field.Key] = value;
            var then = Core.Measures.Weigh.Listing(open.Picks.Terms, with, wanted);
            return new(
                value is null ? null : PlatformJson.WriteValue(value), pieces, used, field.Limit?.Max, gain, bound,
                [.. opens.Select(o => new OpenedPick(o, volumes.GetValueOrDefault(o)))], left, then.Reach, then.Grip, now.Reach, now.Grip, takes);
        }
    }
}
