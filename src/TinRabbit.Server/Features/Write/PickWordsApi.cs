using TinRabbit.Server.Hosting;
using TinRabbit.Server.Picks;

namespace TinRabbit.Server.Features.Write;

/// <summary>The words of the picks, and where a draft has them.</summary>
internal static class PickWordsApi
{
    public static void MapPickWords(this IEndpointRouteBuilder app) =>
        app.MapPost("/api/listings/{id:int}/words", FindPickWords).WithRequestTimeout(ProblemAnswers.Computes);

    private static async Task<PickWords> FindPickWords(
        int id,
        DraftOf draft,
        TinContext db,
        PreparedPicksCache ready,
        CancellationToken stop
    )
    {
        var open = await OpenDraft.Open(db, ready, id, draft, stop).OrNotThere();
        return PickWords.Of(open.Platform, open.Copy, open.Picks.Wanted, stop);
    }
}
