using TinRabbit.Core.Moves;
using TinRabbit.Server.Hosting;
using TinRabbit.Server.Picks;

namespace TinRabbit.Server.Features.Weigh;

/// <summary>The moves of a listing.</summary>
/// <param name="Grip">Its grip as it is, 0–100.</param>
/// <param name="Reach">Its reach as it is, 0–100.</param>
/// <param name="Moves">The greatest gain first; of those with one slot, one can be made.</param>
/// <param name="LeftOut">Picks that no move uses, with the reason.</param>
public sealed record MovesView(double Grip, double Reach, IReadOnlyList<MoveView> Moves, IReadOnlyList<LeftOutView> LeftOut);

/// <summary>One edit, and what it gains.</summary>
/// <param name="Slot">What it excludes other moves from.</param>
/// <param name="Pick">The pick that it is for; null for a word that is cut.</param>
/// <param name="Text">What it puts in, brings together or cuts.</param>
/// <param name="Before">The text that it changes, as it is: of the field, or of the item; empty where there is none.</param>
/// <param name="After">That text after it.</param>
/// <param name="Value">The field's new value.</param>
/// <param name="Gain">Grip after it − grip before.</param>
/// <param name="Reach">Reach after it − reach before.</param>
/// <param name="Loses">Picks that the listing no longer holds after it.</param>
public sealed record MoveView(
    MoveKind Kind,
    string Field,
    string Slot,
    string? Pick,
    string Text,
    string Before,
    string After,
    JsonNode? Value,
    double Gain,
    double Reach,
    IReadOnlyList<string> Loses
);

internal static class MovesApi
{
    public static void MapMoves(this IEndpointRouteBuilder app) =>
        app.MapPost("/api/listings/{id:int}/moves", FindMoves).WithRequestTimeout(ProblemAnswers.Computes);

    private static async Task<MovesView> FindMoves(int id, DraftOf draft, TinContext db, PreparedPicksCache ready, CancellationToken stop)
    {
        var open = await OpenDraft.Open(db, ready, id, draft, stop).OrNotThere();
        var found = MoveSearch.Of(InputOf(open), stop);
        return new MovesView(
            found.Grip,
            found.Reach,
            [.. found.Moves.Select(m => View(m, open.Platform, open.Copy))],
            LeftOutView.Of(found.LeftOut)
        );
    }

    /// <summary>A draft as the search for moves takes it.</summary>
    internal static MovesInput InputOf(OpenDraft open) =>
        new(open.Platform, open.Copy, open.Picks.Wanted, open.Avoid)
        {
            Lead = open.Lead,
            Facts = open.Facts,
            LeftAlone = open.Platform.Fields.Where(f => f.IsMaterials).Select(f => f.Key).ToHashSet(),
        };

    /// <summary>A move as it is shown beside the texts that it changes.</summary>
    internal static MoveView View(Move move, Platform platform, IReadOnlyDictionary<string, FieldValue> copy)
    {
        var field = platform.Find(move.Field)!;
        var before = copy.GetValueOrDefault(move.Field);
        return new(
            move.Kind,
            move.Field,
            move.Slot,
            move.Pick,
            move.Text,
            before is null ? "" : TextOf(before, field, move),
            TextOf(move.Value, field, move),
            CopyJson.WriteValue(move.Value),
            move.Gain,
            move.Reach,
            move.Loses
        );
    }

    private static string TextOf(FieldValue value, Field field, Move move) =>
        move.Item is { } item ? value.Units(field.Shape).ElementAtOrDefault(item) ?? ""
        : move.Kind == MoveKind.Attribute ? ""
        : string.Join(' ', value.Units(field.Shape));
}
