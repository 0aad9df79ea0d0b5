using Microsoft.EntityFrameworkCore;
using TinRabbit.Core.Measures;
using TinRabbit.Core.Words;
using TinRabbit.Market;

namespace TinRabbit.Server.Storage;

/// <summary>A term as some source gives it, with what that source says of it.</summary>
/// <param name="Text">As typed.</param>
/// <param name="Reading">Its reading, with source and date; null where nothing was measured.</param>
public sealed record Found(string Text, ReadingRow? Reading);

/// <summary>What a market knows of a term, as screens show it.</summary>
/// <param name="Volume">Searches a month; null when unknown.</param>
/// <param name="Competition">Competing listings; null when unknown.</param>
/// <param name="TitlesHolding">Listings whose title holds the phrase; null when unknown.</param>
/// <param name="ClickCost">What a click costs; null when unknown.</param>
/// <param name="Headroom">0–100, 50 being typical; null when unknown.</param>
/// <param name="Band">Competition against the market's shelf; null when unknown.</param>
/// <param name="Months">Searches by month, oldest first; null when unknown.</param>
/// <param name="From">The month that <paramref name="Months"/> begins with.</param>
/// <param name="Source">Who measured it; null where nobody has.</param>
/// <param name="TakenAt">When.</param>
public sealed record Measured(
    long? Volume, long? Competition, long? TitlesHolding, decimal? ClickCost, double? Headroom, Band? Band,
    IReadOnlyList<int>? Months, DateOnly? From, string? Source, DateTime? TakenAt)
{
    /// <summary>Nothing is known.</summary>
    public static readonly Measured Nothing = new(null, null, null, null, null, null, null, null, null, null);

    /// <summary>Sees a reading against what is typical of its market.</summary>
    public static Measured Of(ReadingRow? reading, Norm norm) => reading is null ? Nothing : new(
        reading.Volume, reading.Competition, reading.TitlesHolding, reading.ClickCost,
        Numbers.Headroom(reading.Volume, reading.Competition, norm.Centre), norm.BandOf(reading.Competition),
        reading.Months, reading.From, reading.Source, reading.TakenAt);
}

/// <summary>A pick with its numbers in one market.</summary>
public sealed record MeasuredPick(PickRow Pick, Measured Numbers);

/// <summary>The terms of a market and their readings.</summary>
public static class Shelf
{
    /// <summary>
    /// Puts terms on a market's shelf and brings its norm up to date. A term that is there keeps its id and old readings; the
    /// new reading is the one that counts. One transaction: all or nothing.
    /// </summary>
    /// <returns>Every term given, by key.</returns>
    public static async Task<Dictionary<string, TermRow>> Put(this TinContext db, string marketId, IReadOnlyCollection<Found> found, CancellationToken stop)
    {
        var byKey = new Dictionary<string, Found>(StringComparer.Ordinal);
        foreach (var one in found)
            if (Tokens.Key(one.Text) is { Length: > 0 } key)
                byKey.TryAdd(key, one);
        await using var transaction = await db.Database.BeginTransactionAsync(stop);
        var terms = new Dictionary<string, TermRow>(StringComparer.Ordinal);
        foreach (var keys in byKey.Keys.Chunk(400))
            foreach (var term in await db.Terms.Include(t => t.Reading).Where(t => t.MarketId == marketId && keys.Contains(t.Key)).ToListAsync(stop))
                terms[term.Key] = term;
        foreach (var (key, one) in byKey)
            if (!terms.ContainsKey(key))
                terms[key] = db.Terms.Add(new() { MarketId = marketId, Text = one.Text.Trim(), Key = key }).Entity;
        await db.SaveChangesAsync(stop);
        foreach (var (key, one) in byKey)
            if (one.Reading is { } reading && !Same(terms[key].Reading, reading))
            {
                reading.TermId = terms[key].Id;
                terms[key].Reading = reading;
            }

        await db.SaveChangesAsync(stop);
        await db.Renorm(marketId, stop);
        await transaction.CommitAsync(stop);
        return terms;
    }

    /// <summary>The market's reading of a term, now; null where nobody types it there.</summary>
    public static ReadingRow? Read(this IMarket market, string marketId, string text) => market.Measure(marketId, text) is not { } m ? null : new()
    {
        Volume = m.Volume,
        Competition = m.Competition,
        TitlesHolding = m.TitlesHolding,
        ClickCost = m.ClickCost,
        Months = m.Months,
        From = m.From,
        Source = market.Name,
        TakenAt = DateTime.UtcNow,
    };

    /// <summary>What is typical of a market's shelf.</summary>
    public static async Task<Norm> NormOf(this TinContext db, string marketId, CancellationToken stop) =>
        (await db.Markets.AsNoTracking().FirstOrDefaultAsync(m => m.Id == marketId, stop))?.Norm ?? Norm.Unknown;

    /// <summary>A product's picks in their order, with all that is known of them in one market.</summary>
    public static async Task<List<MeasuredPick>> PicksOf(this TinContext db, int productId, string marketId, CancellationToken stop)
    {
        var norm = await db.NormOf(marketId, stop);
        var rows = await Joined(db, productId, marketId).Select(p => new { p.Pick, p.Term!.Reading }).ToListAsync(stop);
        return [.. rows.Select(r => new MeasuredPick(r.Pick, Measured.Of(r.Reading, norm)))];
    }

    /// <summary>The picks that are worked on, neither parked nor avoided, as the engine takes them, each with its key. Asked at every key: it reads no more than that.</summary>
    public static async Task<List<(string Key, WantedTerm Term)>> WantedOf(this TinContext db, int productId, string marketId, CancellationToken stop)
    {
        var norm = await db.NormOf(marketId, stop);
        var rows = await Joined(db, productId, marketId).Where(p => p.Pick.Home != Home.Later && p.Pick.Home != Home.Avoid)
            .Select(p => new { p.Pick.Key, p.Pick.Text, p.Pick.Fit, p.Term!.Reading!.Volume, p.Term.Reading.Competition }).ToListAsync(stop);
        return [.. rows.Select(r => (r.Key, new WantedTerm(r.Text, r.Volume, r.Competition, Numbers.Headroom(r.Volume, r.Competition, norm.Centre), r.Fit)))];
    }

    private sealed class PickAndTerm
    {
        public required PickRow Pick { get; init; }
        public required TermRow? Term { get; init; }
    }

    private static IQueryable<PickAndTerm> Joined(TinContext db, int productId, string marketId) =>
        from pick in db.Picks.AsNoTracking()
        where pick.ProductId == productId
        join term in db.Terms.AsNoTracking().Where(t => t.MarketId == marketId) on pick.Key equals term.Key into terms
        from term in terms.DefaultIfEmpty()
        orderby pick.Order, pick.Id
        select new PickAndTerm { Pick = pick, Term = term };

    private static bool Same(ReadingRow? old, ReadingRow now) =>
        old is not null && old.Source == now.Source && old.Volume == now.Volume && old.Competition == now.Competition
        && old.TitlesHolding == now.TitlesHolding && old.ClickCost == now.ClickCost && old.From == now.From;

    private static async Task Renorm(this TinContext db, string marketId, CancellationToken stop)
    {
        var readings = await db.Terms.Where(t => t.MarketId == marketId && t.Reading != null)
            .Select(t => new { t.Reading!.Volume, t.Reading.Competition }).ToListAsync(stop);
        var norm = Norm.Of(readings.Select(r => ((double?)r.Volume, (double?)r.Competition)));
        var market = await db.Markets.FindAsync([marketId], stop) ?? db.Markets.Add(new() { Id = marketId }).Entity;
        (market.Centre, market.LowTo, market.ModerateTo, market.Readings) = (norm.Centre, norm.LowTo, norm.ModerateTo, norm.Readings);
        await db.SaveChangesAsync(stop);
    }
}
