using TinRabbit.Core.Progress;
using TinRabbit.Server.Journal;
using TinRabbit.Server.Picks;

namespace TinRabbit.Server.Features.Next;

/// <summary>How far listings have come, from what the shop has kept of them.</summary>
internal static class ListingStates
{
    /// <summary>All of a listing's state but what its text is weighed and checked for.</summary>
    public static async Task<ListingState> Of(TinContext db, OpenDraft open, string marketId, IMarket market, CancellationToken stop)
    {
        var id = open.Listing.Id;
        var weighing = Core.Measures.Weigher.Weigh(open.Picks.Terms, open.Copy, open.Picks.Wanted, stop);
        var sent = await db
            .Sent.AsNoTracking()
            .Where(s => s.ListingId == id && s.MarketId == marketId)
            .OrderByDescending(s => s.Id)
            .FirstOrDefaultAsync(stop);
        var checks = await db
            .Checks.AsNoTracking()
            .Where(c => c.ListingId == id && c.MarketId == marketId && c.State == CheckState.Finished)
            .OrderByDescending(c => c.At)
            .ThenByDescending(c => c.Id)
            .Take(2)
            .ToListAsync(stop);
        var ids = checks.ConvertAll(c => c.Id);
        var finds = (await db.Finds.AsNoTracking().Where(f => ids.Contains(f.CheckId) && f.IsDone).ToListAsync(stop)).ToLookup(f =>
            f.CheckId
        );
        var last = checks.Count > 0 ? finds[checks[0].Id].ToList() : [];
        var before = checks.Count > 1 ? finds[checks[1].Id].ToDictionary(f => f.TermId) : [];
        var missing = last.Where(f => !f.Found).Select(f => f.TermId).ToList();
        var keys = await db.FollowedTerms.Where(t => missing.Contains(t.Id)).Select(t => t.Key).ToHashSetAsync(stop);
        var strongest = Enumerable
            .Range(0, open.Picks.Wanted.Count)
            .OrderByDescending(i => open.Picks.Wanted[i].Worth())
            .Select(i => open.Picks.Wanted[i].Text)
            .FirstOrDefault();
        var tags = open.Platform.Role("tags");
        return new()
        {
            Picks = open.Picks.Wanted.Count,
            Strongest = strongest,
            HasLead = open.Lead is not null,
            EmptyTags = tags?.Limit?.MaxItems is { } most
                ? Math.Max(0, most - (open.Copy.GetValueOrDefault(tags.Key)?.Units(tags.Shape).Count(t => t.Trim().Length > 0) ?? 0))
                : 0,
            PublishedAt = sent?.At,
            HasChanged = sent is not null && sent.Copy != open.Listing.Copy,
            ShownAt = sent?.NoticedAt,
            Now = market.Now,
            CheckedAt = checks.Count > 0 ? checks[0].At : null,
            Checked = last.Count,
            Found = last.Count(f => f.Found),
            LackWords = Enumerable
                .Range(0, open.Picks.Wanted.Count)
                .Count(i => keys.Contains(open.Picks.Keys[i]) && weighing.Terms[i].Grade == Grade.Missing),
            Fell = last.Count(f => f.Rank is { } now && before.TryGetValue(f.TermId, out var then) && then.Rank is { } rank && now > rank),
            FellSince = checks.Count > 1 ? checks[1].Day : null,
        };
    }
}
