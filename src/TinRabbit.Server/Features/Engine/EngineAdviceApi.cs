using System.Text.Json.Serialization;
using TinRabbit.Core.Filling;
using TinRabbit.Core.Moves;
using TinRabbit.Core.Reviews;
using TinRabbit.Server.Listings;

namespace TinRabbit.Server.Features.Engine;

/// <summary>A listing whose moves are wanted.</summary>
/// <param name="Platform">A whole profile, or the id of a stored one.</param>
/// <param name="Fields">The listing as it is.</param>
/// <param name="Terms">The picks.</param>
/// <param name="Lead">The pick that it is built around: no move takes it out of the title.</param>
/// <param name="Avoid">Terms to avoid.</param>
/// <param name="Facts">True statements about the product; without them no claim is held back.</param>
/// <param name="Most">For how many slots at most, 1 to 500; 40 where nothing is said.</param>
public sealed record MovesRequest(
    JsonElement Platform,
    JsonElement Fields,
    [MaxLength(Bounds.FillTerms)] IReadOnlyList<EngineTerm>? Terms,
    [Term] string? Lead,
    [Term, MaxLength(Bounds.TermsAtOnce)] IReadOnlyList<string>? Avoid,
    Facts? Facts,
    int? Most
);

/// <summary>The engine's answer to <c>moves</c>.</summary>
/// <param name="Grip">The listing's grip as it is, 0–100.</param>
/// <param name="Reach">Its reach as it is, 0–100.</param>
/// <param name="Moves">The greatest gain first.</param>
/// <param name="LeftOut">Picks that no move uses, with the reason.</param>
public sealed record MovesResponse(double Grip, double Reach, IReadOnlyList<EngineMove> Moves, IReadOnlyList<LeftOut> LeftOut);

/// <summary>One edit, and what it gains.</summary>
/// <param name="Kind">front, whole, add, exchange, words, attribute or free.</param>
/// <param name="Field">The field that it changes.</param>
/// <param name="Item">The item of a list field, from 0; absent for a text.</param>
/// <param name="Slot">The field's key with #item, :front or :end: of the moves of one slot, one can be made.</param>
/// <param name="Text">What it puts in, brings together or cuts.</param>
/// <param name="Value">The field's new value.</param>
/// <param name="Gain">Grip after it − grip before.</param>
/// <param name="Reach">Reach after it − reach before.</param>
/// <param name="Loses">Picks that the listing no longer holds after it.</param>
public sealed record EngineMove(
    MoveKind Kind,
    string Field,
    [property: JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingNull)] int? Item,
    string Slot,
    string Text,
    JsonNode? Value,
    double Gain,
    double Reach,
    IReadOnlyList<string> Loses
)
{
    public static EngineMove Of(Move move) =>
        new(move.Kind, move.Field, move.Item, move.Slot, move.Text, CopyJson.WriteValue(move.Value), move.Gain, move.Reach, move.Loses);
}

/// <summary>Reviews of two sides.</summary>
public sealed record PhrasesRequest(
    [MaxLength(Bounds.Reviews)] IReadOnlyList<EngineReview>? Mine,
    [MaxLength(Bounds.Reviews)] IReadOnlyList<EngineReview>? Theirs
);

/// <summary>What a buyer wrote.</summary>
/// <param name="Stars">0–5; null where none were given.</param>
public sealed record EngineReview([MaxLength(Bounds.ReviewLength)] string? Text, double? Stars = null);

/// <summary>The engine's answer to <c>phrases</c>: the most telling first.</summary>
public sealed record PhrasesResponse(IReadOnlyList<BuyerPhrase> Phrases);

/// <summary>The stateless engine: what to do next, and what buyers say.</summary>
internal static class EngineAdviceApi
{
    private const double MostStars = 5;

    public static void MapEngineAdvice(this IEndpointRouteBuilder app)
    {
        app.MapPost("/api/engine/moves", EngineMoves).WithRequestTimeout(Hosting.ProblemAnswers.Computes);
        app.MapPost("/api/engine/phrases", EngineBuyerPhrases).WithRequestTimeout(Hosting.ProblemAnswers.Computes);
    }

    private static async Task<MovesResponse> EngineMoves(MovesRequest request, TinContext db, CancellationToken stop)
    {
        if (request.Most is < 1 or > Bounds.Moves)
            throw new InvalidInputException([new("most", $"This is a number from 1 to {Bounds.Moves}.")]);
        var platform = await EngineInput.ReadPlatform(request.Platform, db, stop);
        var found = MoveSearch.Of(
            new(
                platform,
                EngineInput.ReadFields(request.Fields, platform),
                EngineInput.ReadTerms(request.Terms),
                EngineInput.ReadAvoid(request.Avoid)
            )
            {
                Lead = request.Lead,
                Facts = request.Facts?.Words,
                Most = request.Most ?? MovesInput.UsualMost,
            },
            stop
        );
        return new(found.Grip, found.Reach, [.. found.Moves.Select(EngineMove.Of)], found.LeftOut);
    }

    private static PhrasesResponse EngineBuyerPhrases(PhrasesRequest request, CancellationToken stop) =>
        new PhrasesResponse(BuyerPhrases.Of(Reviews(request.Mine, "mine"), Reviews(request.Theirs, "theirs"), stop: stop));

    private static Review[] Reviews(IReadOnlyList<EngineReview>? given, string name)
    {
        if (given is null)
            throw new InvalidInputException([new(name, "A list of reviews is needed; it may be empty.")]);
        var problems = new List<Problem>();
        for (var i = 0; i < given.Count; i++)
        {
            if (given[i].Text is null)
                problems.Add(new($"{name}[{i}].text", "A review needs its text."));
            if (given[i].Stars is { } stars && stars is not (>= 0 and <= MostStars))
                problems.Add(new($"{name}[{i}].stars", $"This is a number from 0 to {MostStars}."));
        }

        return problems.Count == 0 ? [.. given.Select(r => new Review(r.Text!, r.Stars))] : throw new InvalidInputException(problems);
    }
}
