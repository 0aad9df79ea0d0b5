using TinRabbit.Server.Files.Tables;
using TinRabbit.Server.Markets;
using TinRabbit.Server.Picks;
using TinRabbit.Server.Rivals;
using TinRabbit.Server.Shelf;

namespace TinRabbit.Server.Features.Weigh;

/// <summary>The whole text of another seller's listing as far as it is known, and the terms in it.</summary>
/// <param name="Shop">The shop's name; empty where it is not known.</param>
/// <param name="Texts">Its fields, in the platform's order; those that are not known are left out.</param>
/// <param name="Terms">The terms in it that the market's shelf knows, the most searched first.</param>
/// <param name="Left">How many more there are than are listed.</param>
public sealed record RivalText(string Shop, string Title, IReadOnlyList<RivalField> Texts, IReadOnlyList<RivalTerm> Terms, int Left);

/// <summary>A field of another seller's listing.</summary>
public sealed record RivalField(string Key, string Label, string Text);

/// <summary>A term in another seller's text.</summary>
/// <param name="Fields">The labels of the fields that have all of its words.</param>
/// <param name="Holds">How the shop's own listing holds it.</param>
public sealed record RivalTerm(string Key, string Text, Measured Numbers, IReadOnlyList<string> Fields, Grade Holds);

/// <summary>Reads another seller's listing against the market's shelf.</summary>
internal static class RivalTextApi
{
    private const int MostTerms = 400;

    public static void MapRivalTexts(this IEndpointRouteBuilder app)
    {
        var api = app.MapGroup("/api/listings/{id:int}/rivals");
        api.MapGet("/{rivalId:int}/text", ReadRival);
        api.MapGet("/found/text", ReadResult);
    }

    private static async Task<RivalText> ReadRival(
        int id,
        int rivalId,
        string marketId,
        TinContext db,
        PreparedPicksCache ready,
        Shelves shelves,
        CancellationToken stop
    )
    {
        var open = await OpenDraft.Open(db, ready, id, new(marketId, null), stop).OrNotThere();
        var rival = await RivalsApi.Saved(db, id, marketId).AsNoTracking().FirstOrDefaultAsync(r => r.Id == rivalId, stop).OrNotThere();
        return await Read(open, marketId, rival.Latest, db, shelves, stop);
    }

    // A result has no name of its own everywhere, so it is known by its rank.
    private static async Task<RivalText> ReadResult(
        int id,
        string marketId,
        string term,
        int rank,
        TinContext db,
        PreparedPicksCache ready,
        TopListings top,
        Shelves shelves,
        CancellationToken stop
    )
    {
        var open = await OpenDraft.Open(db, ready, id, new(marketId, null), stop).OrNotThere();
        var page = await top.Of(marketId, term, stop).OrNotThere();
        var result = page.Ranked().ElementAtOrDefault(rank - 1) ?? throw new NotThereException();
        return await Read(open, marketId, RivalStates.Of(result, open.Platform), db, shelves, stop);
    }

    private static async Task<RivalText> Read(
        OpenDraft open,
        string marketId,
        RivalState rival,
        TinContext db,
        Shelves shelves,
        CancellationToken stop
    )
    {
        var copy = rival.Copy.On(open.Platform);
        var keys = new Dictionary<string, List<string>>(StringComparer.Ordinal);
        foreach (var field in open.Platform.Fields)
        foreach (var unit in copy.GetValueOrDefault(field.Key)?.Units(field.Shape) ?? [])
        foreach (var term in (await shelves.Read(db, marketId, open.Platform, unit, stop)).Holds)
        {
            if (!keys.TryGetValue(term.Text, out var fields))
                keys[term.Text] = fields = [];
            if (!fields.Contains(field.Label))
                fields.Add(field.Label);
        }

        var known = await shelves.MeasuredOf(db, marketId, keys.Keys, stop);
        var terms = keys.Where(k => known.ContainsKey(k.Key)).OrderByDescending(k => known[k.Key].Numbers.Volume ?? -1).ToList();
        var listed = terms.Take(MostTerms).ToList();
        var mine = Weigher.Weigh(open.Platform, open.Copy, [.. listed.Select(t => new WantedTerm(known[t.Key].Text))], stop).Terms;
        return new(
            rival.Shop,
            rival.Copy.TextOf(open.Platform, "title"),
            [
                .. open
                    .Platform.Fields.Where(f => copy.GetValueOrDefault(f.Key)?.IsEmpty(f.Shape) == false)
                    .Select(f => new RivalField(f.Key, f.Label, ListingFiles.OneText(f, copy[f.Key]))),
            ],
            [.. listed.Select((t, i) => new RivalTerm(t.Key, known[t.Key].Text, known[t.Key].Numbers, t.Value, mine[i].Grade))],
            terms.Count - listed.Count
        );
    }
}
