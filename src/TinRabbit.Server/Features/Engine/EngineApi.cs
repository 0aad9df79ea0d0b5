using System.Text.Json.Serialization;
using TinRabbit.Core.Filling;
using TinRabbit.Core.Filling.Tags;
using TinRabbit.Core.Filling.Titles;
using TinRabbit.Core.Filling.Words;
using TinRabbit.Core.Findings;
using TinRabbit.Core.Shapes;
using TinRabbit.Server.Hosting;
using TinRabbit.Server.Listings;
using TinRabbit.Server.Shelf;

namespace TinRabbit.Server.Features.Engine;

/// <summary>What to weigh.</summary>
/// <param name="Platform">A whole profile, or the id of a stored one.</param>
/// <param name="Fields">The listing: a text, a list of texts or an object of attributes for each field.</param>
/// <param name="Terms">The terms it is weighed for.</param>
public sealed record WeighRequest(JsonElement Platform, JsonElement Fields, [MaxLength(Bounds.Terms)] IReadOnlyList<EngineTerm>? Terms);

/// <summary>A term given to the engine.</summary>
public sealed record EngineTerm(
    [Term] string? Text,
    double? Volume = null,
    double? Competition = null,
    double? Headroom = null,
    Fit Fit = Fit.Core,
    Home Home = Home.Anywhere
);

/// <summary>The engine's answer to <c>weigh</c>.</summary>
/// <param name="Reach">0–100.</param>
/// <param name="Grip">0–100.</param>
/// <param name="Demand">What the terms count by: measured, partly or counted.</param>
/// <param name="Eligible">How many terms the listing holds.</param>
/// <param name="Volume">Their searches a month.</param>
/// <param name="UnknownVolume">How many of the terms have no known volume.</param>
/// <param name="Terms">Each term, in the order given.</param>
public sealed record WeighResponse(
    double Reach,
    double Grip,
    DemandBasis Demand,
    int Eligible,
    double Volume,
    int UnknownVolume,
    IReadOnlyList<WeighedTermResponse> Terms
)
{
    public static WeighResponse Of(Platform platform, Weighing weighing, CancellationToken stop)
    {
        var keys = platform.IndexedFields.Select(f => f.Key).ToArray();
        return new(
            weighing.Reach,
            weighing.Grip,
            weighing.Basis,
            weighing.Eligible,
            weighing.Volume,
            weighing.UnknownVolume,
            [
                .. weighing.Terms.Select(t =>
                {
                    stop.ThrowIfCancellationRequested();
                    var match = t.Explain();
                    return new WeighedTermResponse(
                        t.Term.Text,
                        t.Grade,
                        t.Grip,
                        keys.Zip(match.Fields).ToDictionary(f => f.First, f => f.Second),
                        match.Missing,
                        t.Near(match),
                        match.Apart ? true : null,
                        match.Spans
                    );
                }),
            ]
        );
    }
}

/// <summary>How the listing holds one term.</summary>
/// <param name="Text">As given.</param>
/// <param name="Grade">How firmly.</param>
/// <param name="Grip">0–1.</param>
/// <param name="Fields">The grade in each indexed field.</param>
/// <param name="Missing">Words that no searched field has.</param>
/// <param name="Near">Forms of missing words that the listing has.</param>
/// <param name="Apart">True where all words stand but the platform does not combine them; absent otherwise.</param>
/// <param name="Spans">Its start, in UTF-16 units of the given text.</param>
public sealed record WeighedTermResponse(
    string Text,
    Grade Grade,
    double Grip,
    IReadOnlyDictionary<string, Grade> Fields,
    IReadOnlyList<string> Missing,
    IReadOnlyList<NearMiss> Near,
    [property: JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingNull)] bool? Apart,
    IReadOnlyList<Span> Spans
);

/// <summary>A term's history to name.</summary>
/// <param name="Months">Searches by month, oldest first; at least twelve.</param>
/// <param name="From">The month they begin with, as <c>2025-01</c>.</param>
public sealed record ShapeRequest([MaxLength(Bounds.Months)] IReadOnlyList<double?>? Months, [MaxLength(20)] string? From);

/// <summary>The engine's answer to <c>shape</c>.</summary>
/// <param name="PeakMonths">From 1, January; empty unless seasonal.</param>
/// <param name="Change12">Percent over twelve months.</param>
/// <param name="SeasonalStrength">0–1; null under 24 months.</param>
/// <param name="P">Two-sided, Mann–Kendall.</param>
/// <param name="ReadyBy">The next day to be ready by; null unless seasonal.</param>
public sealed record ShapeResponse(
    Core.Shapes.Shape Shape,
    IReadOnlyList<int> PeakMonths,
    double Change12,
    double? SeasonalStrength,
    double P,
    DateOnly? ReadyBy
);

/// <summary>Terms to weave.</summary>
public sealed record WeaveRequest([MaxLength(Bounds.WeaveTerms)] IReadOnlyList<EngineTerm>? Terms);

/// <summary>The engine's answer to <c>weave</c>.</summary>
/// <param name="Text">The shortest phrase that contains every term.</param>
/// <param name="Whole">Whether it contains each as an exact phrase.</param>
/// <param name="Volume">Searches/mo of its terms; unknown ones count as 0.</param>
/// <param name="UnknownVolume">How many of the terms have no known volume.</param>
/// <param name="Together">The shortest phrase with every term's words, in any order.</param>
public sealed record WeaveResponse(string Text, bool Whole, double Volume, int UnknownVolume, string Together);

/// <summary>A field to fill.</summary>
/// <param name="Platform">A whole profile, or the id of a stored one.</param>
/// <param name="Fields">The listing as it is.</param>
/// <param name="Field">The key of the field.</param>
/// <param name="Terms">The terms wanted.</param>
/// <param name="Avoid">Terms to avoid.</param>
/// <param name="Lead">The term that comes first; not for words.</param>
/// <param name="Facts">True statements about the product; without them no claim is held back.</param>
public sealed record FillRequest(
    JsonElement Platform,
    JsonElement Fields,
    [MaxLength(Bounds.NameLength)] string? Field,
    [MaxLength(Bounds.FillTerms)] IReadOnlyList<EngineTerm>? Terms,
    [Term, MaxLength(Bounds.TermsAtOnce)] IReadOnlyList<string>? Avoid,
    [Term] string? Lead,
    Facts? Facts
);

/// <summary>The engine's answer to <c>fill/words</c>.</summary>
/// <param name="Words">What to add.</param>
/// <param name="Text">The text with it.</param>
/// <param name="Used">Room used by the text, in the field's unit.</param>
/// <param name="Limit">Room there is; null when there is no limit.</param>
/// <param name="Gain">Σ demand·fit of what it opens.</param>
/// <param name="Bound">No words that fit could gain more.</param>
/// <param name="Opens">Terms that become eligible with it.</param>
/// <param name="Left">Terms that stay missing.</param>
/// <param name="LeftOut">Terms that are not used, with the reason.</param>
public sealed record FillWordsResponse(
    IReadOnlyList<string> Words,
    string Text,
    int Used,
    int? Limit,
    double Gain,
    double Bound,
    IReadOnlyList<string> Opens,
    IReadOnlyList<string> Left,
    IReadOnlyList<LeftOut> LeftOut
);

/// <summary>The engine's answer to <c>fill/phrases</c>.</summary>
/// <param name="Items">The whole field with what was added.</param>
/// <param name="Added">The added items.</param>
/// <param name="Grip">The listing's with it, 0–100.</param>
/// <param name="Opens">Terms that become eligible with it.</param>
/// <param name="Left">Terms that stay missing.</param>
/// <param name="LeftOut">Terms that are not used, with the reason.</param>
public sealed record FillPhrasesResponse(
    IReadOnlyList<string> Items,
    IReadOnlyList<string> Added,
    double Grip,
    IReadOnlyList<string> Opens,
    IReadOnlyList<string> Left,
    IReadOnlyList<LeftOut> LeftOut
);

/// <summary>The engine's answer to <c>fill/title</c>.</summary>
/// <param name="Takes">The best first.</param>
/// <param name="LeftOut">Terms that are not used, with the reason.</param>
public sealed record FillTitleResponse(IReadOnlyList<Take> Takes, IReadOnlyList<LeftOut> LeftOut);

/// <summary>A listing to check.</summary>
/// <param name="Platform">A whole profile, or the id of a stored one.</param>
/// <param name="PageKind">For a page of the seller's own shop: product, category or content. The platform may then be left out.</param>
/// <param name="Fields">The listing's fields.</param>
/// <param name="Lead">The term that it is built around.</param>
/// <param name="Terms">The picks.</param>
/// <param name="Facts">True statements about the product; without them no claim is checked.</param>
/// <param name="Avoid">Terms to avoid.</param>
/// <param name="ShopName">The shop's name.</param>
public sealed record CheckRequest(
    JsonElement Platform,
    [MaxLength(20)] string? PageKind,
    JsonElement Fields,
    [Term] string? Lead,
    [MaxLength(Bounds.Terms)] IReadOnlyList<EngineTerm>? Terms,
    Facts? Facts,
    [Term, MaxLength(Bounds.TermsAtOnce)] IReadOnlyList<string>? Avoid,
    [MaxLength(Bounds.NameLength)] string? ShopName
);

/// <summary>The engine's answer to <c>check</c>.</summary>
/// <param name="Findings">Required ones first, then by cost.</param>
/// <param name="Passed">The ids of the checks that apply and found nothing.</param>
public sealed record CheckResponse(IReadOnlyList<CheckedFinding> Findings, IReadOnlyList<string> Passed);

/// <summary>One result of a check.</summary>
/// <param name="Id">The check's name.</param>
/// <param name="Level">must, should or fine.</param>
/// <param name="Field">The field it is about.</param>
/// <param name="Item">The item of a list field, from 0.</param>
/// <param name="Start">In UTF-16 units of the text given.</param>
/// <param name="Length">0 where it is about the field as a whole.</param>
/// <param name="Why">Why it matters.</param>
/// <param name="Fix">An edit that fixes it; null where a person has to.</param>
public sealed record CheckedFinding(string Id, Level Level, string Field, int Item, int Start, int Length, string Why, CheckedFix? Fix)
{
    internal static CheckedFinding Of(Finding f) =>
        new(
            f.Id,
            f.Level,
            f.Field,
            f.Item,
            f.Start,
            f.Length,
            f.Why,
            f.Fix is { } fix ? new(fix.Label, fix.Field, CopyJson.WriteValue(fix.Value)) : null
        );
}

/// <summary>An edit that fixes a finding: the field's new value.</summary>
public sealed record CheckedFix(string Label, string Field, System.Text.Json.Nodes.JsonNode? Value);

/// <summary>A text to read against a market's shelf.</summary>
public sealed record ReadRequest(JsonElement Platform, [MaxLength(Bounds.ReadLength)] string? Text, string? MarketId);

/// <summary>The engine's answer to <c>read</c>.</summary>
/// <param name="Holds">Known terms in the text as a phrase, the most searched first.</param>
/// <param name="Could">Known terms that it would contain in another order of its words, the most searched first.</param>
public sealed record ReadResponse(IReadOnlyList<ReadTerm> Holds, IReadOnlyList<ReadTerm> Could);

/// <summary>The stateless engine.</summary>
internal static class EngineApi
{
    public static void MapEngine(this IEndpointRouteBuilder routes)
    {
        var app = routes.MapGroup("");
        app.WithRequestTimeout(ProblemAnswers.Computes);
        app.MapPost("/api/engine/fill/words", EngineFillWords);
        app.MapPost("/api/engine/fill/phrases", EngineFillPhrases);
        app.MapPost("/api/engine/fill/title", EngineFillTitle);
        app.MapPost("/api/engine/check", EngineCheck);
        app.MapPost("/api/engine/read", EngineRead);
        app.MapPost("/api/engine/shape", EngineShape);
        app.MapPost("/api/engine/weave", EngineWeave);
        app.MapPost("/api/engine/weigh", EngineWeigh);
        app.MapEngineAdvice();
        app.MapEngineWatch();
        app.MapEnginePages();
    }

    private static ShapeResponse EngineShape(ShapeRequest request)
    {
        var shape = YearShape.Of(EngineInput.ReadMonths(request), EngineInput.ReadMonth(request.From))!;
        return new ShapeResponse(shape.Shape, shape.PeakMonths, shape.Change12, shape.SeasonalStrength, shape.P, shape.ReadyBy);
    }

    private static WeaveResponse EngineWeave(WeaveRequest request)
    {
        var weave = Weave.Of(EngineInput.ReadTerms(request.Terms));
        return new WeaveResponse(weave.Text, true, weave.Volume, weave.UnknownVolume, weave.Together);
    }

    private static async Task<WeighResponse> EngineWeigh(WeighRequest request, TinContext db, CancellationToken stop)
    {
        var platform = await EngineInput.ReadPlatform(request.Platform, db, stop);
        var copy =
            request.Fields.ValueKind == JsonValueKind.Undefined
                ? throw new InvalidInputException([new("fields", "The listing's fields are needed.")])
                : CopyJson.Read(request.Fields, platform);
        return WeighResponse.Of(platform, Core.Measures.Weigher.Weigh(platform, copy, EngineInput.ReadTerms(request.Terms), stop), stop);
    }

    private static async Task<FillWordsResponse> EngineFillWords(FillRequest request, TinContext db, CancellationToken stop)
    {
        var fill = WordsFill.Of(await EngineInput.ReadFill(request, db, stop), stop);
        return new FillWordsResponse(
            fill.Words,
            fill.Text,
            fill.Used,
            fill.Limit,
            fill.Gain,
            fill.Bound,
            fill.Opens,
            fill.Left,
            fill.LeftOut
        );
    }

    private static async Task<FillPhrasesResponse> EngineFillPhrases(FillRequest request, TinContext db, CancellationToken stop)
    {
        var fill = TagsFill.Of(await EngineInput.ReadFill(request, db, stop), stop);
        return new FillPhrasesResponse(fill.Items, fill.Added, fill.Grip, fill.Opens, fill.Left, fill.LeftOut);
    }

    private static async Task<FillTitleResponse> EngineFillTitle(FillRequest request, TinContext db, CancellationToken stop)
    {
        var fill = TitleFill.Of(await EngineInput.ReadFill(request, db, stop), stop);
        return new FillTitleResponse(fill.Takes, fill.LeftOut);
    }

    private static async Task<CheckResponse> EngineCheck(CheckRequest request, TinContext db, CancellationToken stop)
    {
        var page = EngineInput.ReadPageKind(request.PageKind);
        var platform = await PlatformOf(request.Platform, page is not null, db, stop);
        var copy = EngineInput.ReadFields(request.Fields, platform);
        var check = ListingCheck.Check(
            new(
                platform,
                copy,
                EngineInput.ReadTerms(request.Terms ?? []),
                request.Lead,
                request.Facts?.Words,
                [.. EngineInput.ReadAvoid(request.Avoid).Select(a => new AvoidedTerm(a))],
                request.ShopName,
                []
            )
            {
                Page = page is { } kind ? new(kind) { Brand = request.ShopName ?? "" } : null,
                Pictures = page is null ? [] : EngineInput.AltTexts(platform, copy),
            },
            stop
        );
        return new CheckResponse([.. check.Findings.Select(CheckedFinding.Of)], [.. check.Passed.Select(p => p.Id)]);
    }

    // A page has the rules of the web shop unless others are given.
    private static Task<Platform> PlatformOf(JsonElement given, bool isPage, TinContext db, CancellationToken stop) =>
        isPage && given.ValueKind is JsonValueKind.Undefined or JsonValueKind.Null
            ? EngineInput.ReadPlatform(JsonSerializer.SerializeToElement(Sites.PlatformId), db, stop)
            : EngineInput.ReadPlatform(given, db, stop);

    private static async Task<ReadResponse> EngineRead(ReadRequest request, TinContext db, Shelves shelves, CancellationToken stop)
    {
        var platform = await EngineInput.ReadPlatform(request.Platform, db, stop);
        if (request.MarketId is not { } market || !shelves.Knows(market))
            throw new InvalidInputException([new("marketId", $"There is no market \"{request.MarketId}\".")]);
        var read = await shelves.Read(
            db,
            market,
            platform,
            request.Text ?? throw new InvalidInputException([new("text", "The text to read is needed.")]),
            stop
        );
        return new ReadResponse(read.Holds, read.Could);
    }
}
