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

internal static class MovesApi
{
    public static void MapMoves(this IEndpointRouteBuilder app) =>
        app.MapPost("/api/listings/{id:int}/moves", FindMoves).WithRequestTimeout(ProblemAnswers.Computes);

    private static async Task<MovesView> FindMoves(int id, DraftOf draft, TinContext db, PreparedPicksCache ready, CancellationToken stop)
    {
        var open = await OpenDraft.Open(db, ready, id, draft, stop).OrNotThere();
        var found = MoveSearch.Of(open.ForMoves, stop);
        return new MovesView(
            found.Grip,
            found.Reach,
            [.. found.Moves.Select(m => MoveView.Of(m, open.Platform, open.Copy))],
            LeftOutView.Of(found.LeftOut)
        );
    }
}
