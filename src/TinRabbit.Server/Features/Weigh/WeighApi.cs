using System.Text.Json.Serialization;
using TinRabbit.Server.Hosting;
using TinRabbit.Server.Listings;
using TinRabbit.Server.Picks;

namespace TinRabbit.Server.Features.Weigh;

/// <summary>A draft to weigh; null weighs what is saved.</summary>
/// <param name="Since">The <see cref="WeighingView.Id"/> of the weighing that the asker has: only what changed since is said.</param>
public sealed record DraftRequest(string MarketId, JsonElement? Fields, [MaxLength(64)] string? Since = null);

/// <summary>How a listing holds its product's picks.</summary>
/// <param name="Reach">0–100.</param>
/// <param name="Grip">0–100.</param>
/// <param name="Eligible">Picks that it holds.</param>
/// <param name="Picks">All picks that count: neither saved for later nor to be avoided.</param>
/// <param name="Volume">Searches a month of the eligible ones.</param>
/// <param name="TotalVolume">Searches a month of all.</param>
/// <param name="UnknownVolume">Picks whose volume is unknown.</param>
/// <param name="Basis">What the picks count by.</param>
/// <param name="Assumed">What each pick of unknown volume counts for, unless a bound is known; null where every volume is known.</param>
/// <param name="Fields">The indexed fields in order, as <see cref="PickWeight.Grades"/> and <see cref="PickWeight.Strengths"/> count them.</param>
/// <param name="Terms">Each pick that counts; where <paramref name="Since"/> says so, only those that changed.</param>
/// <param name="Rooms">Room used, by field.</param>
/// <param name="Avoided">Avoided terms in the texts, in any field.</param>
/// <param name="Id">To be given as <see cref="DraftRequest.Since"/> next time.</param>
/// <param name="Since">The weighing that the terms left out are to be taken from; null when none is left out.</param>
public sealed record WeighingView(
    double Reach,
    double Grip,
    int Eligible,
    int Picks,
    double Volume,
    double TotalVolume,
    int UnknownVolume,
    DemandBasis Basis,
    double? Assumed,
    IReadOnlyList<string> Fields,
    IReadOnlyList<PickWeight> Terms,
    IReadOnlyDictionary<string, RoomUsed> Rooms,
    IReadOnlyList<AvoidedUse> Avoided,
    string Id,
    string? Since,
    WeighingSums Sums
);

/// <summary>The sums that reach and grip are made of, 0 or more.</summary>
/// <param name="EligibleDemand">Σ demand·fit of the eligible picks.</param>
/// <param name="Demand">The same of all picks.</param>
/// <param name="Gripped">Σ worth·grip.</param>
/// <param name="Worth">Σ worth.</param>
/// <param name="ByField">The part of each indexed field in the listing's grip, in grip points.</param>
/// <param name="Spread">The part of picks whose words are in several fields.</param>
public sealed record WeighingSums(
    double EligibleDemand,
    double Demand,
    double Gripped,
    double Worth,
    IReadOnlyList<double> ByField,
    double Spread
);

/// <summary>A pick whose figures are to be explained, by its key.</summary>
public sealed record ExplainRequest(string MarketId, [MaxLength(Bounds.TermLength)] string Key, JsonElement? Fields);

/// <summary>How a pick's grip and worth were worked out, each factor and sum as the engine used it.</summary>
/// <param name="Fields">The fields that hold it: strength = weight × factor × front.</param>
/// <param name="SpreadFactor">For words in several fields: grip = this × <paramref name="SpreadMean"/>; null otherwise.</param>
/// <param name="SpreadMean">The mean over its words of the highest weight among fields that have the word.</param>
/// <param name="Grip">0–100.</param>
/// <param name="Assumed">What it counts for where the volume is unknown; null where it is known.</param>
/// <param name="Worth">demand × fit × (0.5 + headroom ÷ 200).</param>
/// <param name="FitWeight">What its fit counts: 1, 0.7 or 0.4.</param>
/// <param name="HeadroomUsed">Its headroom, or 50 where that is unknown.</param>
public sealed record TermExplained(
    string Key,
    Grade Grade,
    IReadOnlyList<FieldStrength> Fields,
    double? SpreadFactor,
    double? SpreadMean,
    double Grip,
    double? Volume,
    double FitWeight,
    double HeadroomUsed,
    double? Assumed,
    double Worth
);

/// <summary>An avoided term in the listing's texts.</summary>
public sealed record AvoidedUse(string Text, string Reason, string Product, IReadOnlyList<Span> Spans);

/// <summary>How a listing holds one pick. Values that are empty are left out.</summary>
/// <param name="Key">The pick's key; its words and numbers are with the picks.</param>
/// <param name="Grades">The best grade in each indexed field.</param>
/// <param name="Strengths">Its strength in each, 0–1.</param>
public sealed record PickWeight(
    string Key,
    Grade Grade,
    double Grip,
    [property: JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingNull)] IReadOnlyList<Grade>? Grades,
    [property: JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingNull)] IReadOnlyList<double>? Strengths,
    [property: JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingNull)] IReadOnlyList<string>? Missing,
    [property: JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingNull)] IReadOnlyList<NearMiss>? Near,
    [property: JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingNull)] bool? Apart,
    [property: JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingNull)] IReadOnlyList<Span>? Spans
)
{
    /// <summary>Whether another says the same of this pick.</summary>
    internal bool ContentEquals(PickWeight other) =>
        Grade == other.Grade
        && Grip == other.Grip
        && Apart == other.Apart
        && Key == other.Key
        && Same(Missing, other.Missing)
        && Same(Spans, other.Spans)
        && Same(Grades, other.Grades)
        && Same(Strengths, other.Strengths)
        && Same(Near, other.Near);

    private static bool Same<T>(IReadOnlyList<T>? one, IReadOnlyList<T>? other) =>
        ReferenceEquals(one, other) || (one is not null && other is not null && one.SequenceEqual(other));
}

internal static class WeighApi
{
    public static void MapWeigh(this IEndpointRouteBuilder app)
    {
        app.MapPost("/api/listings/{id:int}/weigh/explain", ExplainTerm).WithRequestTimeout(ProblemAnswers.Computes);
        app.MapPost("/api/listings/{id:int}/weigh", WeighListing).WithRequestTimeout(ProblemAnswers.Computes);
    }

    private static async Task<WeighingView> WeighListing(
        int id,
        DraftRequest draft,
        TinContext db,
        PreparedPicksCache ready,
        LastWeighings last,
        CancellationToken stop
    )
    {
        if (await Load(db, ready, id, draft.MarketId, draft.Fields, stop) is not var (picks, copy))
            throw new NotThereException();
        return View(picks, copy, Core.Measures.Weigher.Weigh(picks.Terms, copy, picks.Wanted, stop), draft.Since, last, stop);
    }

    private static async Task<TermExplained> ExplainTerm(
        int id,
        ExplainRequest request,
        TinContext db,
        PreparedPicksCache ready,
        CancellationToken stop
    )
    {
        if (await Load(db, ready, id, request.MarketId, request.Fields, stop) is not var (picks, copy))
            throw new NotThereException();
        return picks.Keys.ToList().IndexOf(request.Key) is >= 0 and var at
            ? View(request.Key, picks.Platform, picks.Wanted[at], copy, stop)
            : throw new NotThereException();
    }

    private static TermExplained View(
        string key,
        Platform platform,
        WantedTerm wanted,
        IReadOnlyDictionary<string, FieldValue> copy,
        CancellationToken stop
    )
    {
        var weighed = Core.Measures.Weigher.Weigh(TermSet.Prepare(platform, [wanted.Text]), copy, [wanted], stop).Terms[0];
        var spread = weighed.Grade == Grade.Spread;
        return new(
            key,
            weighed.Grade,
            weighed.Strengths(),
            spread ? Matcher.SpreadFactor : null,
            spread ? weighed.Explain().Spread : null,
            weighed.Grip * 100,
            wanted.Volume,
            wanted.Fit.Weight(),
            wanted.Headroom ?? WantedTerm.TypicalHeadroom,
            wanted.Volume is null ? wanted.Assumed : null,
            wanted.Worth()
        );
    }

    // The picks and the texts of a listing: of the draft, or as it is saved.
    private static async Task<(PreparedPicks Picks, IReadOnlyDictionary<string, FieldValue> Copy)?> Load(
        TinContext db,
        PreparedPicksCache ready,
        int id,
        string marketId,
        JsonElement? fields,
        CancellationToken stop
    )
    {
        if (
            await db
                .Listings.AsNoTracking()
                .Where(l => l.Id == id)
                .Select(l => new
                {
                    l.ProductId,
                    l.Copy,
                    l.Platform.Profile,
                })
                .FirstOrDefaultAsync(stop)
            is not { } listing
        )
            return null;
        var picks = await ready.Get(db, listing.ProductId, marketId, listing.Profile, stop);
        var copy = fields is { } draft ? CopyJson.Read(draft, picks.Platform) : listing.Copy.On(picks.Platform);
        return (picks, await db.WithAltTexts(picks.Platform, listing.ProductId, copy, stop));
    }

    private static WeighingView View(
        PreparedPicks picks,
        IReadOnlyDictionary<string, FieldValue> copy,
        Weighing weighing,
        string? since,
        LastWeighings last,
        CancellationToken stop
    )
    {
        PickWeight[] weights =
        [
            .. picks.Keys.Zip(
                weighing.Terms,
                (key, w) =>
                {
                    stop.ThrowIfCancellationRequested();
                    var match = w.Explain();
                    var held = w.Grade is not Grade.Missing;
                    return new PickWeight(
                        key,
                        w.Grade,
                        w.Grip,
                        held ? match.Fields : null,
                        held ? match.Strengths : null,
                        Some(match.Missing),
                        Some(w.Near(match)),
                        match.Apart ? true : null,
                        Some(match.Spans)
                    );
                }
            ),
        ];
        var (id, changed) = last.Remember(since, picks, weights);
        return new(
            weighing.Reach,
            weighing.Grip,
            weighing.Eligible,
            picks.Keys.Count,
            weighing.Volume,
            weighing.TotalVolume,
            weighing.UnknownVolume,
            weighing.Basis,
            weighing.UnknownVolume == 0 ? null : PickDemand.AssumedFor(picks.Wanted),
            [.. picks.Platform.IndexedFields.Select(f => f.Key)],
            changed ?? weights,
            picks.Platform.Fields.ToDictionary(f => f.Key, f => RoomUsed.Of(f, copy.GetValueOrDefault(f.Key))),
            [
                .. picks
                    .AvoidedTerms.FindIn(copy)
                    .Select(a => new AvoidedUse(
                        picks.Avoided[a.Number].Text,
                        picks.Avoided[a.Number].Reason,
                        picks.Avoided[a.Number].Product,
                        a.Spans
                    )),
            ],
            id,
            changed is null ? null : since,
            Sums(picks, weighing, weights)
        );
    }

    private static WeighingSums Sums(PreparedPicks picks, Weighing weighing, PickWeight[] weights)
    {
        var (parts, spread) = (new double[picks.Platform.IndexedFields.Count], 0.0);
        var pointsOfWorth = weighing.Worth.All > 0 ? 100 / weighing.Worth.All : 0;
        for (var i = 0; i < weights.Length; i++)
        {
            var worth = picks.Wanted[i].Worth() * pointsOfWorth;
            if (weights[i].Grade == Grade.Spread)
                spread += worth * weights[i].Grip;
            else if (weights[i].Strengths is { } strengths)
                foreach (var (field, part) in GripSplit.Of(strengths).Index())
                    parts[field] += worth * part;
        }

        return new(weighing.Demand.Eligible, weighing.Demand.All, weighing.Worth.Gripped, weighing.Worth.All, parts, spread);
    }

    private static IReadOnlyList<T>? Some<T>(IReadOnlyList<T> list) => list.Count > 0 ? list : null;
}
