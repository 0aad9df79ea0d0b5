using Microsoft.EntityFrameworkCore;
using TinRabbit.Core.Matching;
using TinRabbit.Core.Measures;
using TinRabbit.Server.Journal;
using TinRabbit.Server.Listings;
using TinRabbit.Server.Picks;
using TinRabbit.Server.Shelf;
using TinRabbit.Server.Storage;

namespace TinRabbit.Server.Features.Watch;

/// <summary>A term that is checked, and what the market found.</summary>
/// <param name="Volume">Searches/mo; null when unknown.</param>
/// <param name="IsPick">Whether it is a pick of the product that is worked on.</param>
/// <param name="At">When it was last checked; null before the first time.</param>
/// <param name="Found">Whether the listing was found then; null before the first time.</param>
/// <param name="Page">The page of results that the rank is on; null without a rank.</param>
/// <param name="Before">What the check before found; null where there was none.</param>
/// <param name="Flip">Whether that changed.</param>
/// <param name="Predicted">Whether the listing should have been found then, by the platform's profile.</param>
/// <param name="Why">Why it was not found; null where it was.</param>
/// <param name="Because">For <see cref="NotFoundBecause.WordMissing"/>: the words.</param>
/// <param name="Near">Forms of them that the listing has and the platform does not fold.</param>
/// <param name="IsInDraft">Whether the listing as it is now holds the term.</param>
public sealed record FoundTerm(
    int Id,
    string Key,
    string Text,
    long? Volume,
    bool IsPick,
    DateTime? At,
    bool? Found,
    int? Rank,
    int? Page,
    long? Results,
    FoundBefore? Before,
    Flip Flip,
    bool Predicted,
    NotFoundBecause? Why,
    IReadOnlyList<string> Because,
    IReadOnlyList<NearMiss> Near,
    bool IsInDraft
);

/// <summary>What an earlier check found.</summary>
public sealed record FoundBefore(DateTime At, bool Found, int? Rank);

/// <summary>How two checks differ in whether a listing was found.</summary>
public enum Flip
{
    None,

    /// <summary>It is found now, and was not before.</summary>
    Appeared,

    /// <summary>It was found before, and is not now.</summary>
    Disappeared,
}

/// <summary>Why a search did not find a listing.</summary>
public enum NotFoundBecause
{
    /// <summary>The listing was never sent to this market.</summary>
    NotSent,

    /// <summary>It was sent, and the market's index did not know it yet.</summary>
    IndexDelay,

    /// <summary>A word of the term is in no searched field.</summary>
    WordMissing,

    /// <summary>Every word is there: the market's rules may differ from the profile.</summary>
    RulesDiffer,
}

/// <summary>Puts the last two observations of each term beside what the profile predicts.</summary>
internal static class FoundTerms
{
    // A term that no check asked for in so many is shown as not checked.
    private const int LastChecks = 40;

    public static async Task<List<FoundTerm>> Of(TinContext db, ListingRow listing, string marketId, CancellationToken stop)
    {
        var terms = await db
            .FollowedTerms.AsNoTracking()
            .Where(t => t.ListingId == listing.Id && t.MarketId == marketId)
            .OrderBy(t => t.Id)
            .ToListAsync(stop);
        var checks = await FoundChecks.Of(db, listing.Id, marketId).AsNoTracking().Take(LastChecks).ToListAsync(stop);
        var ids = checks.Select(c => c.Id).ToList();
        var times = checks.ToDictionary(c => c.Id, c => c.At);
        var finds = (await db.Finds.AsNoTracking().Where(f => ids.Contains(f.CheckId) && f.IsDone).ToListAsync(stop))
            .GroupBy(f => f.TermId)
            .ToDictionary(g => g.Key, g => g.OrderBy(f => ids.IndexOf(f.CheckId)).Take(2).ToArray());
        var volumes = await Volumes(db, marketId, terms, stop);
        var picks = await db.PicksInUse(listing.ProductId).Select(p => p.Key).ToHashSetAsync(stop);
        var pageSize = await FoundChecks.PageSizeOf(db, listing.Id, marketId, stop);
        var atMarket = await ListingAtMarket.Load(db, listing, marketId, stop);
        var inDraft = atMarket.Weigh(atMarket.Draft, [.. terms.Select(t => t.Text)], stop);
        var weighed = Weighed(atMarket, terms, finds, times, stop);
        return
        [
            .. terms.Select(
                (term, i) =>
                {
                    var last = finds.GetValueOrDefault(term.Id)?[0];
                    var before = finds.GetValueOrDefault(term.Id)?.ElementAtOrDefault(1);
                    var at = last is null ? (DateTime?)null : times[last.CheckId];
                    var held = weighed[i];
                    var why = last is { Found: false } ? Why(atMarket, term.Text, held, at!.Value, stop) : (NotFoundBecause?)null;
                    var explained = why == NotFoundBecause.WordMissing ? held.Explain() : null;
                    return new FoundTerm(
                        term.Id,
                        term.Key,
                        term.Text,
                        volumes.GetValueOrDefault(term.Key),
                        picks.Contains(term.Key),
                        at,
                        last?.Found,
                        last?.Rank,
                        last?.Rank is { } rank ? (rank - 1) / pageSize + 1 : null,
                        last?.Results,
                        before is null ? null : new(times[before.CheckId], before.Found, before.Rank),
                        last is null || before is null || last.Found == before.Found ? Flip.None
                            : last.Found ? Flip.Appeared
                            : Flip.Disappeared,
                        held.Grade != Grade.Missing,
                        why,
                        explained?.Missing ?? [],
                        explained is null ? [] : held.Near(explained),
                        inDraft[i].Grade != Grade.Missing
                    );
                }
            ),
        ];
    }

    /// <summary>The searches/mo of terms by key, where they are known.</summary>
    public static async Task<Dictionary<string, long?>> Volumes(
        TinContext db,
        string marketId,
        IReadOnlyList<FollowedTermRow> terms,
        CancellationToken stop
    )
    {
        var keys = terms.Select(t => t.Key).ToList();
        return await db
            .Terms.Where(t => t.MarketId == marketId && keys.Contains(t.Key) && t.Reading != null)
            .Select(t => new { t.Key, t.Reading!.Volume })
            .ToDictionaryAsync(t => t.Key, t => t.Volume, stop);
    }

    // Each term by the text that the market had when it was last checked.
    private static WeighedTerm[] Weighed(
        ListingAtMarket atMarket,
        List<FollowedTermRow> terms,
        Dictionary<int, FindRow[]> finds,
        Dictionary<int, DateTime> times,
        CancellationToken stop
    )
    {
        var weighed = new WeighedTerm[terms.Count];
        var copies = terms
            .Select(
                (t, i) => (Number: i, Copy: atMarket.CopyAt(finds.TryGetValue(t.Id, out var of) ? times[of[0].CheckId] : DateTime.MaxValue))
            )
            .GroupBy(t => t.Copy, ReferenceEqualityComparer.Instance);
        foreach (var group in copies)
        {
            var numbers = group.Select(g => g.Number).ToArray();
            var held = atMarket.Weigh(group.First().Copy, [.. numbers.Select(n => terms[n].Text)], stop);
            for (var i = 0; i < numbers.Length; i++)
                weighed[numbers[i]] = held[i];
        }

        return weighed;
    }

    private static NotFoundBecause Why(ListingAtMarket atMarket, string term, WeighedTerm held, DateTime at, CancellationToken stop) =>
        !atMarket.WasSent
            ? held.Grade == Grade.Missing
                ? NotFoundBecause.WordMissing
                : NotFoundBecause.NotSent
            : held.Grade != Grade.Missing
                ? NotFoundBecause.RulesDiffer
                : atMarket.PendingAt(at) is { } pending && atMarket.Weigh(pending.Copy, [term], stop)[0].Grade != Grade.Missing
                    ? NotFoundBecause.IndexDelay
                    : NotFoundBecause.WordMissing;
}
