using Microsoft.EntityFrameworkCore;
using TinRabbit.Core.Measures;
using TinRabbit.Core.Platforms;
using TinRabbit.Server.Journal;
using TinRabbit.Server.Listings;
using TinRabbit.Server.Storage;

namespace TinRabbit.Server.Features.Watch;

/// <summary>What a market has of a listing: every text that was sent, with the time from which its search knows it.</summary>
/// <param name="Platform">The platform that it is on.</param>
/// <param name="Sent">Every text that was sent or published there, the last one last.</param>
/// <param name="Draft">The listing as it is now in the shop.</param>
internal sealed record ListingAtMarket(
    Platform Platform,
    IReadOnlyList<(DateTime NoticedAt, IReadOnlyDictionary<string, FieldValue> Copy)> Sent,
    IReadOnlyDictionary<string, FieldValue> Draft
)
{
    /// <summary>Whether it was sent or published there.</summary>
    public bool WasSent => Sent.Count > 0;

    public static async Task<ListingAtMarket> Load(TinContext db, ListingRow listing, string marketId, CancellationToken stop)
    {
        var platform = listing.Platform.Profile;
        var sent = await db
            .Sent.AsNoTracking()
            .Where(s => s.ListingId == listing.Id && s.MarketId == marketId)
            .OrderBy(s => s.Id)
            .ToListAsync(stop);
        return new(platform, [.. sent.Select(s => (s.NoticedAt, s.Copy.On(platform)))], listing.Copy.On(platform));
    }

    /// <summary>The text that the search knew at a time; the shop's own where nothing was ever sent, null where the index had nothing yet.</summary>
    public IReadOnlyDictionary<string, FieldValue>? CopyAt(DateTime at) =>
        WasSent ? Sent.LastOrDefault(s => s.NoticedAt <= at).Copy : Draft;

    /// <summary>The text that was sent last and that the search did not know at a time, with when it will; null where there is none.</summary>
    public (DateTime NoticedAt, IReadOnlyDictionary<string, FieldValue> Copy)? PendingAt(DateTime at) =>
        WasSent && Sent[^1].NoticedAt > at ? Sent[^1] : null;

    /// <summary>What a text holds of terms; of no text, nothing.</summary>
    public IReadOnlyList<WeighedTerm> Weigh(
        IReadOnlyDictionary<string, FieldValue>? copy,
        IReadOnlyList<string> terms,
        CancellationToken stop
    ) => Weigher.Weigh(Platform, copy ?? new Dictionary<string, FieldValue>(), [.. terms.Select(t => new WantedTerm(t))], stop).Terms;
}
