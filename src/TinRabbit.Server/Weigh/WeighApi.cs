using System.Text.Json;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using TinRabbit.Core.Matching;
using TinRabbit.Core.Measures;
using TinRabbit.Core.Platforms;
using TinRabbit.Server.Storage;

namespace TinRabbit.Server.Weigh;

/// <summary>A draft to weigh; null weighs what is saved.</summary>
public sealed record DraftRequest(string MarketId, JsonElement? Fields);

/// <summary>What a listing holds of its product's picks.</summary>
/// <param name="Reach">0–100.</param>
/// <param name="Grip">0–100.</param>
/// <param name="Eligible">Picks that it holds.</param>
/// <param name="Picks">All picks that count: neither parked nor avoided.</param>
/// <param name="Volume">Searches a month of the eligible ones.</param>
/// <param name="TotalVolume">Searches a month of all.</param>
/// <param name="UnknownVolume">Picks whose volume is unknown.</param>
/// <param name="Fields">The indexed fields in order, as <see cref="PickWeight.Grades"/> and <see cref="PickWeight.Strengths"/> count them.</param>
/// <param name="Terms">Each pick that counts.</param>
/// <param name="Rooms">Room used, by field.</param>
public sealed record WeighingView(
    double Reach, double Grip, int Eligible, int Picks, double Volume, double TotalVolume, int UnknownVolume,
    IReadOnlyList<string> Fields, IReadOnlyList<PickWeight> Terms, IReadOnlyDictionary<string, Room> Rooms);

/// <summary>What a listing holds of one pick, with all that made the figure.</summary>
/// <param name="Demand">volume × fit; null where the volume is unknown.</param>
/// <param name="Worth">volume × fit × (0.5 + headroom / 200); null where the volume is unknown.</param>
public sealed record PickWeight(
    string Text, string Key, Grade Grade, double Grip, double? Volume, double? Headroom, Fit Fit, double? Demand, double? Worth,
    IReadOnlyList<Grade> Grades, IReadOnlyList<double> Strengths, IReadOnlyList<string> Missing, IReadOnlyList<NearMiss> Near, bool Apart, IReadOnlyList<Span> Spans);

internal static class WeighApi
{
    public static void MapWeigh(this IEndpointRouteBuilder app) =>
        app.MapPost("/api/listings/{id:int}/weigh", async Task<Results<Ok<WeighingView>, NotFound>> (int id, DraftRequest draft, TinContext db, CancellationToken stop) =>
        {
            if (await db.Listings.AsNoTracking().Include(l => l.Platform).FirstOrDefaultAsync(l => l.Id == id, stop) is not { } listing)
                return TypedResults.NotFound();
            var platform = PlatformJson.Read(listing.Platform.Profile);
            using var saved = JsonDocument.Parse(listing.Copy);
            var copy = PlatformJson.ReadCopy(draft.Fields ?? saved.RootElement, platform);
            var picks = await db.WantedOf(listing.ProductId, draft.MarketId, stop);
            var weighing = Core.Measures.Weigh.Listing(platform, copy, [.. picks.Select(p => p.Term)]);
            return TypedResults.Ok(View(platform, copy, picks, weighing));
        }).WithName("WeighListing").WithTags("Weigh").ProducesValidationProblem();

    private static WeighingView View(Platform platform, IReadOnlyDictionary<string, FieldValue> copy, List<(string Key, WantedTerm Term)> picks, Weighing weighing) => new(
        weighing.Reach, weighing.Grip, weighing.Eligible, picks.Count, weighing.Volume, picks.Sum(p => p.Term.Volume ?? 0), weighing.UnknownVolume,
        [.. platform.IndexedFields.Select(f => f.Key)],
        [.. picks.Zip(weighing.Terms, (pick, w) =>
        {
            var match = w.Explain();
            return new PickWeight(
                pick.Term.Text, pick.Key, w.Grade, w.Grip, w.Term.Volume, w.Term.Headroom, w.Term.Fit,
                w.Term.Volume * w.Term.Fit.Weight(), w.Term.Volume is null ? null : w.Term.Worth(),
                match.Fields, match.Strengths, match.Missing, w.Near(match), match.Apart, match.Spans);
        })],
        platform.Fields.ToDictionary(f => f.Key, f => Room.Of(f, copy.GetValueOrDefault(f.Key))));
}
