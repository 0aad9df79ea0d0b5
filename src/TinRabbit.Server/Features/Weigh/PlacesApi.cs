using TinRabbit.Core.Moves;
using TinRabbit.Server.Files.Tables;
using TinRabbit.Server.Hosting;
using TinRabbit.Server.Picks;

namespace TinRabbit.Server.Features.Weigh;

/// <summary>Picks to put into a draft.</summary>
public sealed record PlacesRequest(
    [Required] string MarketId,
    JsonElement? Fields,
    [Required, MinLength(1), MaxLength(MovesToPlace.MostTerms), Term] IReadOnlyList<string> Texts
);

/// <summary>Ways to put picks into a listing.</summary>
/// <param name="Ways">Each pick in its best field first, then field by field, the greatest gain first.</param>
/// <param name="Held">Those of the terms that the listing holds firmly already, so that no edit gains anything for them.</param>
/// <param name="LeftOut">Those that no field may have, with the reason.</param>
public sealed record PlacesView(IReadOnlyList<PlacesWay> Ways, IReadOnlyList<string> Held, IReadOnlyList<LeftOutView> LeftOut);

/// <summary>One way: the fields that change, and what it gains.</summary>
/// <param name="Field">The key of the one field that it uses; null where each pick has the best.</param>
/// <param name="Placed">The picks that have a place.</param>
/// <param name="Gain">Grip after it − grip before.</param>
/// <param name="Reach">Reach after it − reach before.</param>
public sealed record PlacesWay(string? Field, IReadOnlyList<string> Placed, double Gain, double Reach, IReadOnlyList<PlacedField> Fields);

/// <summary>A field before and after.</summary>
public sealed record PlacedField(string Key, string Label, string Before, string After, JsonNode? Value);

internal static class PlacesApi
{
    public static void MapPlaces(this IEndpointRouteBuilder app) =>
        app.MapPost("/api/listings/{id:int}/places", FindPlaces).WithRequestTimeout(ProblemAnswers.Computes);

    private static async Task<PlacesView> FindPlaces(
        int id,
        PlacesRequest request,
        TinContext db,
        PreparedPicksCache ready,
        CancellationToken stop
    )
    {
        var open = await OpenDraft.Open(db, ready, id, new(request.MarketId, request.Fields), stop).OrNotThere();
        var keys = request.Texts.Select(Tokens.Key).ToHashSet(StringComparer.Ordinal);
        string[] terms = [.. open.Picks.Wanted.Where(t => keys.Contains(Tokens.Key(t.Text))).Select(t => t.Text)];
        if (terms.Length == 0)
            throw new InvalidInputException([new("texts", "Pick the terms first: only picks that are in use are put into a listing.")]);
        var input = open.ForMoves;
        var best = MovesToPlace.Of(input, terms, null, stop);
        var byField = open
            .Platform.IndexedFields.Select(f => (f.Key, Way: MovesToPlace.Of(input, terms, f.Key, stop)))
            .Where(w => w.Way.Placed.Count > 0)
            .OrderByDescending(w => w.Way.Gain)
            .ToList();
        var told = best.LeftOut.Select(l => l.Text).Concat(best.Placed).Concat(byField.SelectMany(w => w.Way.Placed)).ToHashSet();
        return new(
            [
                // The best of each pick is a way of its own where it uses several fields.
                .. best.Values.Count > 1 ? [View(null, best)] : Array.Empty<PlacesWay>(),
                .. byField.Select(w => View(w.Key, w.Way)),
            ],
            [.. terms.Where(t => !told.Contains(t))],
            LeftOutView.Of(best.LeftOut)
        );

        PlacesWay View(string? field, MovesToPlace way) =>
            new(
                field,
                way.Placed,
                way.Gain,
                way.Reach,
                [
                    .. way.Values.Select(v => new PlacedField(
                        v.Key,
                        open.Platform.Find(v.Key)!.Label,
                        TextOf(open.Copy.GetValueOrDefault(v.Key), v.Key),
                        TextOf(v.Value, v.Key),
                        CopyJson.WriteValue(v.Value)
                    )),
                ]
            );

        string TextOf(FieldValue? value, string key) => value is null ? "" : ListingFiles.OneText(open.Platform.Find(key)!, value);
    }
}
