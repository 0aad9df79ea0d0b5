using System.Text.Json.Serialization;
using TinRabbit.Core.Calibrating;
using TinRabbit.Core.Comparing;

namespace TinRabbit.Server.Features.Engine;

/// <summary>Daily counts around a change.</summary>
/// <param name="Before">One count a day, the last one of the day before the change.</param>
/// <param name="After">One count a day, from the first day on which the change counts.</param>
/// <param name="Control">The same days of what the change could not touch; null where there is none.</param>
public sealed record CompareDaysRequest(
    [MaxLength(Bounds.Days)] IReadOnlyList<double>? Before,
    [MaxLength(Bounds.Days)] IReadOnlyList<double>? After,
    ControlDays? Control = null
);

/// <summary>Daily counts that a change could not touch.</summary>
public sealed record ControlDays(
    [MaxLength(Bounds.Days)] IReadOnlyList<double>? Before,
    [MaxLength(Bounds.Days)] IReadOnlyList<double>? After
);

/// <summary>The engine's answer to <c>compare</c>.</summary>
/// <param name="Difference">In percent; null with less than a week on either side.</param>
/// <param name="Low">The lower end of the 95 % interval, in percent.</param>
/// <param name="High">Its upper end, in percent.</param>
/// <param name="Verdict">up, down or unclear.</param>
/// <param name="DaysNeeded">How many more days a difference of this size would need; absent where it is told, or would take more than a year.</param>
public sealed record CompareDaysResponse(
    double? Difference,
    double? Low,
    double? High,
    Verdict Verdict,
    [property: JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingNull)] int? DaysNeeded
);

/// <summary>What a market found of a listing.</summary>
/// <param name="Platform">A whole profile, or the id of a stored one.</param>
/// <param name="Fields">The listing as the market has it.</param>
/// <param name="Observed">The terms that were asked for.</param>
public sealed record ExplainObservedRequest(
    JsonElement Platform,
    JsonElement Fields,
    [MaxLength(Bounds.Terms)] IReadOnlyList<EngineObserved>? Observed
);

/// <summary>A term that a market was asked for.</summary>
/// <param name="Place">The listing's rank among the results, from 1; null where it is not known.</param>
public sealed record EngineObserved([Term] string? Text, bool? Found, int? Place = null);

/// <summary>The engine's answer to <c>explain</c>.</summary>
/// <param name="Foretold">For each term: whether the listing should be found by the profile.</param>
/// <param name="Disagreements">Terms where that is not what was observed.</param>
/// <param name="Change">The single change of the profile that explains most of them; absent where none explains enough.</param>
/// <param name="Rho">Spearman's rank correlation of grip and −place over the found terms; absent under 20 terms.</param>
/// <param name="Low">The lower end of its 95 % interval.</param>
/// <param name="High">Its upper end.</param>
/// <param name="N">Found terms whose place is known.</param>
public sealed record ExplainObservedResponse(
    IReadOnlyList<bool> Foretold,
    int Disagreements,
    [property: JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingNull)] EngineProfileChange? Change,
    [property: JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingNull)] double? Rho,
    [property: JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingNull)] double? Low,
    [property: JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingNull)] double? High,
    int N
);

/// <summary>One change of a profile.</summary>
/// <param name="Kind">fold, field, indexedFirst or wordsCombine.</param>
/// <param name="Name">The fold, or the field's key; empty for wordsCombine.</param>
/// <param name="On">Whether it is on after the change.</param>
/// <param name="Remaining">Disagreements that remain.</param>
public sealed record EngineProfileChange(ProfileChangeKind Kind, string Name, bool On, int Remaining);

/// <summary>The stateless engine: did a change help, and does a profile explain what was found.</summary>
internal static class EngineWatchApi
{
    private const double HighestCount = 1e12;

    public static void MapEngineWatch(this IEndpointRouteBuilder app)
    {
        app.MapPost("/api/engine/compare", EngineCompare).WithRequestTimeout(Hosting.ProblemAnswers.Computes);
        app.MapPost("/api/engine/explain", EngineExplain).WithRequestTimeout(Hosting.ProblemAnswers.Computes);
    }

    private static CompareDaysResponse EngineCompare(CompareDaysRequest request)
    {
        var problems = new List<Problem>();
        var counts = new DailyCounts(Counts(request.Before, "before"), Counts(request.After, "after"));
        var control = request.Control is { } given
            ? new DailyCounts(Counts(given.Before, "control.before"), Counts(given.After, "control.after"))
            : null;
        if (problems.Count > 0)
            throw new InvalidInputException(problems);
        var found = BeforeAfter.Of(counts, control);
        return new(found.Difference, found.Low, found.High, found.Verdict, found.DaysNeeded);

        IReadOnlyList<double> Counts(IReadOnlyList<double>? days, string name)
        {
            if (days is null)
                problems.Add(new(name, "A list of daily counts is needed."));
            for (var i = 0; i < days?.Count; i++)
                if (days[i] is not (>= 0 and <= HighestCount))
                    problems.Add(new($"{name}[{i}]", $"A day's count is a number from 0 to {HighestCount:#,0}."));
            return days ?? [];
        }
    }

    private static async Task<ExplainObservedResponse> EngineExplain(ExplainObservedRequest request, TinContext db, CancellationToken stop)
    {
        var platform = await EngineInput.ReadPlatform(request.Platform, db, stop);
        var (fields, observed) = (EngineInput.ReadFields(request.Fields, platform), Observed(request.Observed));
        var found = ProfileExplanation.Of(platform, fields, observed, stop);
        var ranked = observed.Zip(found.Grips).Where(o => o.First is { Found: true, Rank: not null });
        var correlation = RankCorrelation.Of([.. ranked.Select(o => (o.Second, o.First.Rank!.Value))]);
        return new ExplainObservedResponse(
            found.Predicted,
            found.Disagreements,
            found.Change is { } change ? new(change.Kind, change.Name, change.On, change.Remaining) : null,
            correlation.Rho,
            correlation.Low,
            correlation.High,
            correlation.Count
        );
    }

    private static ObservedTerm[] Observed(IReadOnlyList<EngineObserved>? given)
    {
        if (given is null)
            throw new InvalidInputException([new("observed", "A list of observed terms is needed; it may be empty.")]);
        var problems = new List<Problem>();
        for (var i = 0; i < given.Count; i++)
        {
            if (given[i].Text is null)
                problems.Add(new($"observed[{i}].text", "A term needs its text."));
            if (given[i].Found is null)
                problems.Add(new($"observed[{i}].found", "Whether it was found is needed: true or false."));
            if (given[i].Place is < 1)
                problems.Add(new($"observed[{i}].place", "A place is a whole number from 1."));
        }

        return problems.Count == 0
            ? [.. given.Select(o => new ObservedTerm(o.Text!, o.Found!.Value, o.Place))]
            : throw new InvalidInputException(problems);
    }
}
