using TinRabbit.Server.Hosting;
using TinRabbit.Server.Picks;

namespace TinRabbit.Server.Features.Write;

/// <summary>The words of the picks, and where the draft has them.</summary>
/// <param name="Words">Those that no searched field has first.</param>
/// <param name="Phrases">By field that people read and the search does not: the picks that do not stand in it.</param>
public sealed record PickWordsView(IReadOnlyList<PickWordView> Words, IReadOnlyDictionary<string, IReadOnlyList<string>> Phrases);

/// <summary>A word of the picks.</summary>
/// <param name="Word">The word.</param>
/// <param name="Fields">Keys of the searched fields that have it.</param>
/// <param name="Unsearched">Keys of the other fields that have it.</param>
/// <param name="Needed">The picks with it, the one that counts for most first.</param>
/// <param name="Volume">Their searches/mo together, as far as they are known; null where none is.</param>
public sealed record PickWordView(
    string Word,
    IReadOnlyList<string> Fields,
    IReadOnlyList<string> Unsearched,
    IReadOnlyList<string> Needed,
    double? Volume
);

internal static class PickWordsApi
{
    public static void MapPickWords(this IEndpointRouteBuilder app) =>
        app.MapPost("/api/listings/{id:int}/words", FindPickWords).WithRequestTimeout(ProblemAnswers.Computes);

    private static async Task<PickWordsView> FindPickWords(
        int id,
        DraftOf draft,
        TinContext db,
        PreparedPicksCache ready,
        CancellationToken stop
    )
    {
        var open = await OpenDraft.Open(db, ready, id, draft, stop).OrNotThere();
        var volumes = open.Picks.Wanted.GroupBy(t => t.Text).ToDictionary(g => g.Key, g => g.First().Volume);
        return new(
            [
                .. PickWords
                    .Of(open.Platform, open.Copy, open.Picks.Wanted)
                    .Select(w => new PickWordView(
                        w.Word,
                        w.Fields,
                        w.Unsearched,
                        w.Needed,
                        w.Needed.Any(t => volumes[t] is not null) ? w.Needed.Sum(t => volumes[t] ?? 0) : null
                    )),
            ],
            PickWords.MissingPhrases(open.Platform, open.Copy, open.Picks.Wanted)
        );
    }
}
