using System.Collections.Concurrent;
using TinRabbit.Server.Markets;

namespace TinRabbit.Server.Shelf;

/// <summary>The shelves of all markets: what stands in the database, kept in columns beside it from the first time it is asked for.</summary>
public sealed partial class Shelves(IMarket market, DataVersion commits, LookupBudget budget, UnknownTerms unknownTerms, WriteGate writes)
    : IDisposable
{
    /// <summary>The source of a reading that was corrected by hand: no market's own reading takes its place.</summary>
    public const string ByHand = "by hand";

    // Above this many terms the market's statistics are computed again only after enough changes, or on request.
    private const int Small = 40_000;
    private const int FreshDays = 30;

    // Most indexes of known terms that are kept: one for each market and set of search rules, which a request can choose.
    private const int MostKnown = 16;

    private readonly ConcurrentDictionary<string, SemaphoreSlim> _gates = new();
    private readonly ConcurrentDictionary<string, ShelfColumns> _shelves = new();
    private readonly BoundedCache<(string Market, string Search), KnownTerms> _known = new(MostKnown);

    /// <summary>Asks something of a market's shelf while nothing else does.</summary>
    public async Task<T> Query<T>(TinContext db, string marketId, Func<ShelfColumns, T> question, CancellationToken stop)
    {
        var gate = GateOf(marketId);
        await gate.WaitAsync(stop);
        try
        {
            var shelf = await Load(db, marketId, stop);
            shelf.Now = db.Now;
            return question(shelf);
        }
        finally
        {
            gate.Release();
        }
    }

    private static SQLitePCL.sqlite3 HandleOf(TinContext db) =>
        ((Microsoft.Data.Sqlite.SqliteConnection)db.Database.GetDbConnection()).Handle!;

    // Only existing markets get a gate, so that requests for others use no memory.
    private SemaphoreSlim GateOf(string marketId) =>
        _gates.TryGetValue(marketId, out var gate) ? gate
        : Knows(marketId) ? _gates.GetOrAdd(marketId, _ => new(1, 1))
        : throw new InvalidInputException([new("marketId", $"There is no market \"{marketId}\".")]);

    /// <summary>Whether there is such a market.</summary>
    public bool Knows(string marketId) => market.Places.Any(p => p.Id == marketId);

    /// <summary>The known terms of a market that a text holds, and those that it would hold if its words stood in another order.</summary>
    public Task<TextRead> Read(TinContext db, string marketId, Platform platform, string text, CancellationToken stop) =>
        Query(
            db,
            marketId,
            shelf =>
            {
                var rules = (marketId, string.Join(' ', platform.Search.IgnoredWords.Prepend(platform.Search.Folds.ToString())));
                if (!_known.TryGet(rules, out var known))
                    known = _known.Set(rules, new(platform));
                lock (known)
                {
                    // The shelf only grows at its end.
                    known.Add(Enumerable.Range(known.Count, shelf.Count - known.Count).Select(row => shelf[row].Key));
                    var found = known
                        .FindIn(text, row => shelf[row].Key)
                        .Select(t => (t.Grade, Line: shelf[t.Number]))
                        .OrderByDescending(t => double.IsNaN(t.Line.Volume) ? -1 : t.Line.Volume)
                        .ThenBy(t => t.Line.Key, StringComparer.Ordinal);
                    return new TextRead(
                        Terms(found.Where(t => t.Grade > Grade.Together)),
                        Terms(found.Where(t => t.Grade == Grade.Together))
                    );
                }

                ReadTerm[] Terms(IEnumerable<(Grade Grade, ShelfLine Line)> found) =>
                    [
                        .. found.Select(t => new ReadTerm(
                            t.Line.Key,
                            Number(t.Line.Volume),
                            Number(t.Line.Competition),
                            shelf.Norm.BandOf(shelf.Norm.SupplyOf(Number(t.Line.Competition), Number(t.Line.TitlesHolding)))
                        )),
                    ];
                static double? Number(double value) => double.IsNaN(value) ? null : value;
            },
            stop
        );

    /// <inheritdoc/>
    public void Dispose() => _known.Dispose();

    /// <summary>Forgets what was kept of a shelf: it changed behind its back, and is read again when it is next asked for.</summary>
    public void Evict(string marketId)
    {
        _shelves.TryRemove(marketId, out _);
        _known.Remove(k => k.Market == marketId);
        commits.Bump();
    }

    /// <summary>Forgets all shelves: the whole database was replaced.</summary>
    public void EvictAll()
    {
        _shelves.Clear();
        _known.Remove(_ => true);
        unknownTerms.Clear();
        commits.Bump();
    }

    /// <summary>
    /// Puts terms on a market's shelf and brings its norm up to date. A term that is there keeps its id and old readings; the
    /// new reading is the one that counts. One transaction: all or nothing.
    /// </summary>
    /// <param name="settle">Whether the norm of a large shelf is taken anew too, which takes a while.</param>
    /// <param name="keepsByHand">Whether a reading that a person corrected stays the one that counts, also one corrected while the market was asked.</param>
    /// <returns>Every term given, by key.</returns>
    public async Task<Dictionary<string, TermRow>> Save(
        TinContext db,
        string marketId,
        IReadOnlyCollection<Found> found,
        CancellationToken stop,
        bool settle = true,
        bool keepsByHand = false
    )
    {
        var byKey = new Dictionary<string, Found>(StringComparer.Ordinal);
        foreach (var one in found)
            if (Tokens.Key(one.Text) is { Length: > 0 } key)
                byKey.TryAdd(key, one);
        var gate = GateOf(marketId);
        await gate.WaitAsync(stop);
        var touched = false;
        try
        {
            var shelf = await Load(db, marketId, stop);
            Dictionary<string, TermRow> terms = [];
            await db.InOneWrite(
                async () =>
                {
                    terms = await TermsOf(db, marketId, byKey.Keys, stop);
                    var changed = new HashSet<TermRow>();
                    foreach (var (key, one) in byKey)
                        if (!terms.ContainsKey(key))
                            changed.Add(
                                terms[key] = db
                                    .Terms.Add(
                                        new()
                                        {
                                            MarketId = marketId,
                                            Text = one.Text.Trim(),
                                            Key = key,
                                        }
                                    )
                                    .Entity
                            );
                    await db.SaveChangesAsync(stop);
                    foreach (var (key, one) in byKey)
                    {
                        // What a person puts in is all that there is: an empty number is unknown.
                        if (one.Reading is { Id: 0 } fresh && fresh.Source != ByHand && terms[key].Reading is { } old)
                            fresh.Keep(old);
                        if (
                            one.Reading is { } reading
                            && !Same(terms[key].Reading, reading)
                            && !(keepsByHand && terms[key].Reading?.Source == ByHand)
                        )
                        {
                            reading.TermId = terms[key].Id;
                            terms[key].Reading = reading;
                            changed.Add(terms[key]);
                        }
                    }

                    await db.SaveChangesAsync(stop);
                    touched = changed.Count > 0;
                    foreach (var term in changed)
                        shelf.Set(ShelfLine.Of(term, shelf.HasTrends));
                    if (shelf.ChangesSinceNorm > 0 && (settle || shelf.Count < Small))
                        await SaveStatistics(db, marketId, shelf.ComputeStatistics(), stop);
                },
                stop
            );
            return terms;
        }
        catch when (touched)
        {
            // The columns may be ahead of the database now, so they are read again.
            Evict(marketId);
            throw;
        }
        finally
        {
            gate.Release();
        }
    }

    /// <summary>Terms by key, with the readings that count.</summary>
    public static async Task<Dictionary<string, TermRow>> TermsOf(
        TinContext db,
        string marketId,
        IReadOnlyCollection<string> keys,
        CancellationToken stop
    )
    {
        var terms = new Dictionary<string, TermRow>(StringComparer.Ordinal);
        foreach (var some in keys.Chunk(400))
        foreach (
            var term in await db.Terms.Include(t => t.Reading).Where(t => t.MarketId == marketId && some.Contains(t.Key)).ToListAsync(stop)
        )
            terms[term.Key] = term;
        return terms;
    }

    /// <summary>Keeps a norm beside its shelf.</summary>
    private static async Task SaveStatistics(TinContext db, string marketId, MarketStatistics norm, CancellationToken stop)
    {
        var row = await db.Markets.FindAsync([marketId], stop) ?? db.Markets.Add(new() { Id = marketId }).Entity;
        row.Norm = norm;
        await db.SaveChangesAsync(stop);
    }

    private async Task<ShelfColumns> Load(TinContext db, string marketId, CancellationToken stop)
    {
        if (_shelves.TryGetValue(marketId, out var shelf))
            return shelf;
        shelf = new();
        await db.Database.OpenConnectionAsync(stop);
        try
        {
            ShelfReader.Read(shelf, HandleOf(db), marketId, stop);
        }
        finally
        {
            await db.Database.CloseConnectionAsync();
        }

        shelf.BeginWith(await db.StatisticsOf(marketId, stop));
        // Statistics that were stored before there were thirds have none.
        if (shelf.Norm is { Readings: > 0, VolumeThirds: null, CompetitionThirds: null, TitlesThirds: null })
            shelf.ComputeStatistics();
        return _shelves[marketId] = shelf;
    }

    /// <summary>Chooses what stands for supply in a market; every headroom and band follows.</summary>
    public async Task<MarketStatistics> ChooseSupply(TinContext db, string marketId, Supply supply, CancellationToken stop)
    {
        var norm = await Query(db, marketId, shelf => shelf.ComputeStatistics(supply), stop);
        await SaveStatistics(db, marketId, norm, stop);
        commits.Bump();
        return norm;
    }

    /// <summary>Deletes terms by their keys, with all their readings, and saves.</summary>
    /// <returns>What brings them back; those that are not on the shelf are left out.</returns>
    public async Task<IReadOnlyList<DeletedTerm>> Delete(
        TinContext db,
        string marketId,
        IReadOnlyCollection<string> keys,
        CancellationToken stop
    )
    {
        var terms = (await TermsOf(db, marketId, [.. keys], stop)).Values.ToList();
        var ids = terms.Select(t => t.Id).ToList();
        var readings = (await db.Readings.AsNoTracking().Where(r => ids.Contains(r.TermId)).OrderBy(r => r.Id).ToListAsync(stop)).ToLookup(
            r => r.TermId
        );
        var gone = terms.Select(t => new DeletedTerm(t.Text, t.Key, t.ReadingId, [.. readings[t.Id]])).ToList();
        foreach (var term in terms)
            db.Entry(term).State = EntityState.Detached;
        // A term names its reading, and a reading its term: the one before the other is let go first.
        await db.Terms.Where(t => ids.Contains(t.Id)).ExecuteUpdateAsync(t => t.SetProperty(x => x.ReadingId, (int?)null), stop);
        await db.Readings.Where(r => ids.Contains(r.TermId)).ExecuteDeleteAsync(stop);
        await db.Terms.Where(t => ids.Contains(t.Id)).ExecuteDeleteAsync(stop);
        Evict(marketId);
        return gone;
    }

    /// <summary>Takes back a finished import, so that it can be made again.</summary>
    /// <returns>Whether there was such an import.</returns>
    public async Task<bool> Withdraw(TinContext db, int importId, DateTime now)
    {
        if (await db.Imports.FirstOrDefaultAsync(i => i.Id == importId && i.Done) is not { } import)
            return false;
        // From here on a crash does not leave half of it: the next start removes what is not done.
        import.Done = false;
        await db.SaveChangesAsync();
        await ImportTakenBack.Withdraw(db, import, writes);
        (import.Done, import.DeletedAt) = (true, now);
        await SaveShelf(db, import.MarketId);
        return true;
    }

    /// <summary>Makes an import again that was taken back.</summary>
    /// <returns>Whether there was such an import.</returns>
    public async Task<bool> Return(TinContext db, int importId, DateTime now)
    {
        if (
            await db.Imports.IgnoreQueryFilters().FirstOrDefaultAsync(i => i.Id == importId && i.Done && i.DeletedAt != null)
            is not { } import
        )
            return false;
        import.Done = false;
        await db.SaveChangesAsync();
        await ImportTakenBack.Return(db, import, writes);
        (import.Done, import.DeletedAt) = (true, null);
        await SaveShelf(db, import.MarketId);
        return true;
    }

    private async Task SaveShelf(TinContext db, string marketId)
    {
        await db.SaveChangesAsync();
        Evict(marketId);
        await Settle(db, marketId);
    }

    /// <summary>Brings the norm of a shelf up to date with its terms.</summary>
    public async Task Settle(TinContext db, string marketId) =>
        await SaveStatistics(
            db,
            marketId,
            await Query(db, marketId, s => s.ComputeStatistics(), CancellationToken.None),
            CancellationToken.None
        );

    private static bool Same(ReadingRow? old, ReadingRow now) =>
        old is not null
        && old.Source == now.Source
        && old.Volume == now.Volume
        && old.Competition == now.Competition
        && old.TitlesHolding == now.TitlesHolding
        && old.ClickCost == now.ClickCost
        && old.Popularity == now.Popularity
        && old.Clicks == now.Clicks
        && old.Orders == now.Orders
        && old.Sales == now.Sales
        && old.From == now.From;
}
