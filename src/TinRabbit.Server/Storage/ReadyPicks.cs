using System.Collections.Concurrent;
using TinRabbit.Core.Matching;
using TinRabbit.Core.Measures;
using TinRabbit.Core.Platforms;

namespace TinRabbit.Server.Storage;

/// <summary>Counts the changes to picks, terms, readings and profiles, so that what was made from them knows when it is old.</summary>
public sealed class Commits
{
    private long _count;

    /// <summary>How many there were.</summary>
    public long Count => Volatile.Read(ref _count);

    /// <summary>There was another.</summary>
    public void Note() => Interlocked.Increment(ref _count);
}

/// <summary>The picks of a product that are worked on, with their numbers in one market, made ready for a platform.</summary>
/// <param name="Keys">Each pick's key.</param>
/// <param name="Homes">Where the seller wants each to live.</param>
/// <param name="Wanted">Each as the engine takes it.</param>
/// <param name="Terms">Their words, looked up in the platform's folds.</param>
/// <param name="Avoided">What the shop avoids, whichever product it was avoided for.</param>
/// <param name="AvoidedTerms">The same, to be looked for in every field.</param>
public sealed record ReadyPicks(IReadOnlyList<string> Keys, IReadOnlyList<Home> Homes, WantedTerm[] Wanted, TermSet Terms, IReadOnlyList<Avoided> Avoided, AvoidedTerms AvoidedTerms)
{
    /// <summary>The platform they are ready for.</summary>
    public Platform Platform => Terms.Platform;
}

/// <summary>A term that the shop avoids.</summary>
/// <param name="Reason">Why; empty where nobody said.</param>
/// <param name="Product">For which product it was avoided.</param>
public sealed record Avoided(string Text, string Reason, string Product);

/// <summary>Keeps ready picks until something they are made of changes: they are asked for at every key.</summary>
public sealed class ReadyPicksCache(Commits commits)
{
    private const int Most = 32;

    private readonly ConcurrentDictionary<(int Product, string Market, string Profile), (long Made, ReadyPicks Ready)> _kept = new();

    /// <summary>The picks of a product in a market, ready for a profile.</summary>
    public async Task<ReadyPicks> Of(TinContext db, int productId, string marketId, string profile, CancellationToken stop)
    {
        var now = commits.Count;
        if (_kept.TryGetValue((productId, marketId, profile), out var kept) && kept.Made == now)
            return kept.Ready;
        var picks = await db.WantedOf(productId, marketId, stop);
        var wanted = picks.Select(p => p.Term).ToArray();
        var platform = PlatformJson.Read(profile);
        var avoided = await db.AvoidedInShop(stop);
        var ready = new ReadyPicks([.. picks.Select(p => p.Key)], [.. picks.Select(p => p.Home)], wanted, TermSet.For(platform, [.. wanted.Select(w => w.Text)]), avoided, new(platform, [.. avoided.Select(a => a.Text)]));
        if (_kept.Count >= Most)
            _kept.Clear();
        _kept[(productId, marketId, profile)] = (now, ready);
        return ready;
    }
}
