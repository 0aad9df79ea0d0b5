using TinRabbit.Core.Moves;
using TinRabbit.Core.Rivals;
using TinRabbit.Server.Hosting;
using TinRabbit.Server.Picks;
using TinRabbit.Server.Rivals;

namespace TinRabbit.Server.Features.Weigh;

/// <summary>A listing among its rivals, and the moves that pass one.</summary>
internal static class RivalRankingApi
{
    public static void MapRivalRanking(this IEndpointRouteBuilder app)
    {
        var api = app.MapGroup("/api/listings/{id:int}/rivals");
        api.MapPost("/compare", CompareRivals).WithRequestTimeout(ProblemAnswers.Computes);
        api.MapPost("/{rivalId:int}/pass", PassRival);
    }

    private static async Task<RivalsView> CompareRivals(
        int id,
        DraftOf draft,
        TinContext db,
        PreparedPicksCache ready,
        CancellationToken stop
    )
    {
        var open = await OpenDraft.Open(db, ready, id, draft, stop).OrNotThere();
        var rivals = await RivalsApi.Saved(db, id, draft.MarketId).AsNoTracking().OrderBy(r => r.Id).ToListAsync(stop);
        var copies = rivals.Select(r => r.Latest.Copy.On(open.Platform)).ToList();
        var ranking = RivalRanking.Of(open.Picks.Terms, open.Picks.Wanted, open.Copy, copies, stop);
        return new RivalsView(
            ranking.Mine.Grip,
            ranking.Mine.Reach,
            ranking.Above + 1,
            ranking.NextAbove is { } next ? rivals[next].Id : null,
            ranking.Gap,
            [.. ranking.Order.Select(i => View(rivals[i], i, copies[i], ranking, open))],
            [.. open.Picks.Keys.Select((key, i) => new HeldTerm(key, Holders(i, ranking, rivals, open.Platform)))]
        );
    }

    private static RivalView View(
        RivalRow rival,
        int number,
        IReadOnlyDictionary<string, FieldValue> copy,
        RivalRanking ranking,
        OpenDraft open
    ) =>
        new(
            rival.Id,
            rival.Latest.Copy.TextOf(open.Platform, "title"),
            rival.Source,
            rival.MarketListing is not null,
            rival.SavedAt,
            rival.SeenAt,
            ranking.Rivals[number].Grip,
            ranking.Rivals[number].Reach,
            rival.Latest,
            rival.Latest.Copy.Fields(),
            [.. open.Platform.IndexedFields.Where(f => copy.GetValueOrDefault(f.Key)?.IsEmpty(f.Shape) == false).Select(f => f.Label)],
            [.. ranking.HeldAlone(number, mine: false).Select(t => open.Picks.Keys[t])],
            [.. ranking.HeldAlone(number, mine: true).Select(t => open.Picks.Keys[t])],
            RivalStates.Changes(rival.First, rival.Latest, open.Platform)
        );

    private static IReadOnlyList<HolderView> Holders(int term, RivalRanking ranking, List<RivalRow> rivals, Platform platform)
    {
        var fields = platform.IndexedFields;
        return
        [
            .. ranking
                .Rivals.Select((r, i) => (Id: rivals[i].Id, Term: r.Terms[term]))
                .Prepend((Id: 0, Term: ranking.Mine.Terms[term]))
                .Where(h => h.Term.Grade != Grade.Missing)
                .OrderByDescending(h => h.Term.Grip)
                .Select(h =>
                {
                    var strengths = h.Term.Explain().Strengths;
                    var best = h.Term.Grade == Grade.Spread ? -1 : strengths.Index().MaxBy(s => s.Item).Index;
                    return new HolderView(h.Id, h.Term.Grade, h.Term.Grip, best < 0 ? null : fields[best].Label);
                }),
        ];
    }

    private static async Task<PassView> PassRival(
        int id,
        int rivalId,
        DraftOf draft,
        TinContext db,
        PreparedPicksCache ready,
        CancellationToken stop
    )
    {
        var rivals = RivalsApi.Saved(db, id, draft.MarketId).AsNoTracking();
        var open = await OpenDraft.Open(db, ready, id, draft, stop).OrNotThere();
        return await Pass(open, await rivals.FirstOrDefaultAsync(r => r.Id == rivalId, stop).OrNotThere(), stop);
    }

    private static async Task<PassView> Pass(OpenDraft open, RivalRow rival, CancellationToken stop)
    {
        var rivalGrip = Weigher.Weigh(open.Picks.Terms, rival.Latest.Copy.On(open.Platform), open.Picks.Wanted, stop).Grip;
        var pass = await Task.Run(() => MovesToPass.Of(open.ForMoves, rivalGrip, stop), stop);
        var copy = new Dictionary<string, FieldValue>(open.Copy);
        var views = pass.Moves.Select(Make).ToList();
        return new(rivalGrip, pass.Grip, pass.Passes, views, CopyJson.Write(copy));

        MoveView Make(Move move)
        {
            var view = MoveView.Of(move, open.Platform, copy);
            copy[move.Field] = move.Value;
            return view;
        }
    }
}
