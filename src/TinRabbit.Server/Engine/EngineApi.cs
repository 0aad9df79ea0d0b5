using System.Text.Json;
using System.Text.Json.Serialization;
using Microsoft.AspNetCore.Http.HttpResults;
using TinRabbit.Core.Matching;
using TinRabbit.Core.Measures;
using TinRabbit.Core.Platforms;
using TinRabbit.Server.Storage;

namespace TinRabbit.Server.Engine;

/// <summary>What to weigh.</summary>
/// <param name="Platform">A whole profile, or the id of a stored one.</param>
/// <param name="Fields">The listing: a text, a list of texts or an object of attributes for each field.</param>
/// <param name="Terms">The terms it is weighed for.</param>
public sealed record WeighRequest(JsonElement Platform, JsonElement Fields, IReadOnlyList<EngineTerm>? Terms);

/// <summary>A term given to the engine.</summary>
public sealed record EngineTerm(string? Text, double? Volume = null, double? Competition = null, double? Headroom = null, Fit Fit = Fit.Core);

/// <summary>The engine's answer to <c>weigh</c>.</summary>
/// <param name="Reach">0–100.</param>
/// <param name="Grip">0–100.</param>
/// <param name="Eligible">How many terms the listing holds.</param>
/// <param name="Volume">Their searches a month.</param>
/// <param name="UnknownVolume">How many of the terms have no known volume.</param>
/// <param name="Terms">Each term, in the order given.</param>
public sealed record WeighResponse(double Reach, double Grip, int Eligible, double Volume, int UnknownVolume, IReadOnlyList<WeighedTermResponse> Terms)
{
    public static WeighResponse Of(Platform platform, Weighing weighing)
    {
        var keys = platform.IndexedFields.Select(f => f.Key).ToArray();
        return new(weighing.Reach, weighing.Grip, weighing.Eligible, weighing.Volume, weighing.UnknownVolume, [.. weighing.Terms.Select(t =>
        {
            var match = t.Explain();
            return new WeighedTermResponse(t.Term.Text, t.Grade, t.Grip, keys.Zip(match.Fields).ToDictionary(f => f.First, f => f.Second),
                match.Missing, t.Near(match), match.Apart ? true : null, match.Spans);
        })]);
    }
}

/// <summary>What the listing holds of one term.</summary>
/// <param name="Text">As given.</param>
/// <param name="Grade">How firmly.</param>
/// <param name="Grip">0–1.</param>
/// <param name="Fields">The grade in each indexed field.</param>
/// <param name="Missing">Words that stand nowhere.</param>
/// <param name="Near">Forms of missing words that stand in the listing.</param>
/// <param name="Apart">True where all words stand but the platform does not combine them; absent otherwise.</param>
/// <param name="Spans">Where it stands, in UTF-16 units of the text given.</param>
public sealed record WeighedTermResponse(
    string Text, Grade Grade, double Grip, IReadOnlyDictionary<string, Grade> Fields, IReadOnlyList<string> Missing, IReadOnlyList<NearMiss> Near,
    [property: JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingNull)] bool? Apart, IReadOnlyList<Span> Spans);

/// <summary>The stateless engine.</summary>
internal static class EngineApi
{
    public static void MapEngine(this IEndpointRouteBuilder app) =>
        app.MapPost("/api/engine/weigh", async Task<Ok<WeighResponse>> (WeighRequest request, TinContext db, CancellationToken stop) =>
        {
            var platform = await ReadPlatform(request.Platform, db, stop);
            var copy = request.Fields.ValueKind == JsonValueKind.Undefined ? throw new FormatProblems([new("fields", "The listing's fields are needed.")])
                : PlatformJson.ReadCopy(request.Fields, platform);
            return TypedResults.Ok(WeighResponse.Of(platform, Core.Measures.Weigh.Listing(platform, copy, ReadTerms(request.Terms))));
        }).WithName("EngineWeigh").WithTags("Engine").ProducesValidationProblem();

    private static async Task<Platform> ReadPlatform(JsonElement given, TinContext db, CancellationToken stop)
    {
        switch (given.ValueKind)
        {
            case JsonValueKind.Object:
                return PlatformJson.Read(given);
            case JsonValueKind.String:
                var id = given.GetString()!;
                return await db.Platforms.FindAsync([id], stop) is { } row ? PlatformJson.Read(row.Profile)
                    : throw new FormatProblems([new("platform", $"There is no platform \"{id}\".")]);
            default:
                throw new FormatProblems([new("platform", "Give a whole profile, or the id of a stored one.")]);
        }
    }

    private static WantedTerm[] ReadTerms(IReadOnlyList<EngineTerm>? terms)
    {
        if (terms is null)
            throw new FormatProblems([new("terms", "A list of terms is needed; it may be empty.")]);
        var problems = new List<Problem>();
        for (var i = 0; i < terms.Count; i++)
        {
            if (terms[i]?.Text is null)
                problems.Add(new($"terms[{i}].text", "A term needs its text."));
            Check(i, "volume", terms[i]?.Volume, double.MaxValue);
            Check(i, "competition", terms[i]?.Competition, double.MaxValue);
            Check(i, "headroom", terms[i]?.Headroom, 100);
        }

        return problems.Count > 0 ? throw new FormatProblems(problems)
            : [.. terms.Select(t => new WantedTerm(t.Text!, t.Volume, t.Competition, t.Headroom, t.Fit))];

        void Check(int i, string key, double? value, double most)
        {
            if (value is < 0 || value > most)
                problems.Add(new($"terms[{i}].{key}", most == 100 ? "This is a number from 0 to 100." : "This is a number, 0 or more."));
        }
    }
}
