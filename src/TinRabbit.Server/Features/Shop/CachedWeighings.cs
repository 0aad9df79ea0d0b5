using System.Runtime.CompilerServices;
using System.Threading.Channels;
using TinRabbit.Core.Findings;
using TinRabbit.Server.Listings;
using TinRabbit.Server.Picks;

namespace TinRabbit.Server.Features.Shop;

/// <summary>The scores of all listings: worked out once, and again after what they are made of has changed.</summary>
internal sealed class CachedWeighings(IServiceScopeFactory scopes, DataVersion version, ILogger<CachedWeighings> log) : IDisposable
{
    private const int MostKept = 100_000;

    // What a score was made from: the data's version, the listing's revision, its lead and its dismissed findings.
    private readonly BoundedCache<(int Listing, string Market), (string Made, WeighedListing Score)> _kept = new(MostKept);

    /// <summary>What a score of a listing as it is now is made from.</summary>
    public string StateOf(int revision, string? leadKey, string dismissed, bool isPage) =>
        $"{version.Count} {(isPage ? version.Pages : 0)} {revision} {dismissed} {leadKey}";

    /// <summary>The score that is known, and whether nothing has changed since; null where none is.</summary>
    public (WeighedListing Score, bool IsFresh)? Find(int listing, string market, string state) =>
        _kept.TryGet((listing, market), out var kept) ? (kept.Score, kept.Made == state) : null;

    /// <inheritdoc/>
    public void Dispose() => _kept.Dispose();

    /// <summary>Works out the scores of listings, each as soon as it is there, on half of the processors.</summary>
    public async IAsyncEnumerable<WeighedListing> Compute(
        IReadOnlyList<(int Listing, string Market, string State)> listings,
        [EnumeratorCancellation] CancellationToken stop
    )
    {
        var done = Channel.CreateBounded<WeighedListing>(64);
        var work = Task.Run(
            async () =>
            {
                try
                {
                    await Parallel.ForEachAsync(
                        listings,
                        new ParallelOptions
                        {
                            CancellationToken = stop,
                            MaxDegreeOfParallelism = Math.Max(1, Environment.ProcessorCount / 2),
                        },
                        async (l, s) =>
                        {
                            if (await Try(l.Listing, l.Market, s) is not { } score)
                                return;
                            _kept.Set((l.Listing, l.Market), (l.State, score));
                            await done.Writer.WriteAsync(score, s);
                        }
                    );
                    done.Writer.Complete();
                }
                catch (Exception e)
                {
                    done.Writer.Complete(e);
                }
            },
            stop
        );
        await foreach (var score in done.Reader.ReadAllAsync(stop))
            yield return score;
        await work;
    }

    // One listing that cannot be weighed keeps no other from it.
    private async Task<WeighedListing?> Try(int id, string market, CancellationToken stop)
    {
        try
        {
            return await One(id, market, stop);
        }
        catch (InvalidInputException e)
        {
            log.LogWarning(e, "Listing {Id} could not be weighed", id);
            return null;
        }
    }

    private static readonly string[] OfSeveralFields = ["unused", "required-empty", "over-limit", "over-items"];
    private static readonly string[] LookedAt = ["title", "tags", "body"];

    private static string[] KindsOf(OpenDraft open, List<Finding> findings) =>
        [
            .. findings
                .Select(f => OfSeveralFields.Contains(f.Id) && open.Platform.Find(f.Field) is { } field ? $"{f.Id} {field.Role}" : f.Id)
                .Concat(
                    LookedAt
                        .Where(r =>
                            open.Platform.Role(r) is { } field && open.Copy.GetValueOrDefault(field.Key)?.IsEmpty(field.Shape) != false
                        )
                        .Select(r => $"empty {r}")
                )
                .Distinct()
                .Order(StringComparer.Ordinal),
        ];

    // Null where the listing was deleted meanwhile.
    private async Task<WeighedListing?> One(int id, string market, CancellationToken stop)
    {
        await using var scope = scopes.CreateAsyncScope();
        var (db, ready, checker) = (
            scope.ServiceProvider.GetRequiredService<TinContext>(),
            scope.ServiceProvider.GetRequiredService<PreparedPicksCache>(),
            scope.ServiceProvider.GetRequiredService<ListingChecker>()
        );
        if (await OpenDraft.Open(db, ready, id, new(market, null), stop) is not { } open)
            return null;
        var weighing = Weigher.Weigh(open.Picks.Terms, open.Copy, open.Picks.Wanted, stop);
        var aside = await db.Asides.Where(a => a.ListingId == id).Select(a => a.Key).ToListAsync(stop);
        var findings = (await checker.Check(db, open, market, stop)).Findings.Where(f => !aside.Contains(f.Key)).ToList();
        return new(
            id,
            weighing.Counted > 0 ? weighing.Reach : null,
            weighing.Counted > 0 ? weighing.Grip : null,
            weighing.LostVolume,
            weighing.LostTerms,
            weighing.Basis,
            weighing.Counted,
            weighing.UnknownVolume,
            findings.Count(f => f.Level == Level.Must),
            findings.Count(f => f.Level == Level.Should),
            KindsOf(open, findings)
        );
    }
}
