using TinRabbit.Server.Hosting;
using TinRabbit.Server.Journal;
using TinRabbit.Server.Listings;
using TinRabbit.Server.Shelf;

namespace TinRabbit.Server.Features.Watch;

/// <summary>What an older program has left of simulated markets in a seller's own shop.</summary>
/// <param name="DaysAhead">How far the clock was ahead before it was set right; 0 where it was not.</param>
/// <param name="Checks">Found checks of sample data, or of a day to come.</param>
/// <param name="Figures">Days of figures of sample data, or to come.</param>
/// <param name="Notes">Change notes of a day to come.</param>
/// <param name="Terms">Terms of which nothing but sample data is known.</param>
public sealed record SampleDataView(int DaysAhead, int Checks, int Figures, int Notes, int Terms);

/// <summary>The sample data of a shop that should have none: it is told of, and deleted or kept.</summary>
internal static class SampleDataApi
{
    public static void MapSampleData(this IEndpointRouteBuilder app)
    {
        var api = app.MapGroup("/api/sample-data");
        api.MapGet("/", GetSampleData);
        api.MapPost("/delete", DeleteSampleData).RetriesRaces();
        api.MapPost("/keep", KeepSampleData).RetriesRaces();
    }

    private static async Task<SampleDataView> GetSampleData(TinContext db, IMarket market, CancellationToken stop)
    {
        var shop = await db.Shops.AsNoTracking().OrderBy(s => s.Id).FirstAsync(stop);
        // Looked for only where it may be: that goes through every reading.
        if (market.IsSimulated || !shop.MayHoldSampleData)
            return new(0, 0, 0, 0, 0);
        return new(
            (int)Math.Round(shop.ClockWasAhead.TotalDays),
            await Checks(db, market).CountAsync(stop),
            await Figures(db, market).CountAsync(stop),
            await Notes(db, market).CountAsync(stop),
            await Terms(db).CountAsync(stop)
        );
    }

    private static async Task<Changed> DeleteSampleData(
        TinContext db,
        IMarket market,
        Shelves shelves,
        ChangeLog changes,
        CancellationToken stop
    )
    {
        if (market.IsSimulated)
            throw new InvalidInputException([new("market", "The numbers of this shop are sample data.")]);
        var shop = await db.Shops.OrderBy(s => s.Id).FirstAsync(stop);
        var checks = await Checks(db, market).ToListAsync(stop);
        var figures = await Figures(db, market).ToListAsync(stop);
        var notes = await Notes(db, market).ToListAsync(stop);
        var steps = new List<IUndoStep> { changes.MarkDeleted([.. checks, .. figures, .. notes]) };
        var terms = await Terms(db).Select(t => new { t.MarketId, t.Key }).ToListAsync(stop);
        foreach (var some in terms.ToLookup(t => t.MarketId, t => t.Key))
            steps.Add(new RestoreTerms(some.Key, await shelves.Delete(db, some.Key, [.. some], stop)));
        (shop.MayHoldSampleData, shop.ClockWasAhead) = (false, TimeSpan.Zero);
        return await changes.Save(
            WatchMessages.DeletedSampleData(checks.Count, figures.Count, notes.Count, terms.Count),
            new(Screen.Settings),
            steps,
            stop
        );
    }

    private static async Task<Changed> KeepSampleData(TinContext db, CancellationToken stop)
    {
        var shop = await db.Shops.OrderBy(s => s.Id).FirstAsync(stop);
        (shop.MayHoldSampleData, shop.ClockWasAhead) = (false, TimeSpan.Zero);
        await db.SaveChangesAsync(stop);
        return new(null);
    }

    private static IQueryable<CheckRow> Checks(TinContext db, IMarket market)
    {
        var last = market.LastDay;
        return db.Checks.Where(c => c.Source == MarketSource.SampleData || c.Day > last);
    }

    private static IQueryable<FigureRow> Figures(TinContext db, IMarket market)
    {
        var last = market.LastDay;
        return db.Figures.Where(f => f.Source == MarketSource.SampleData || f.Day > last);
    }

    private static IQueryable<NoteRow> Notes(TinContext db, IMarket market)
    {
        var last = market.Now.AddDays(1);
        return db.Notes.Where(n => n.At > last);
    }

    private static IQueryable<TermRow> Terms(TinContext db) =>
        db.Terms.Where(t => t.ReadingId != null && !db.Set<ReadingRow>().Any(r => r.TermId == t.Id && r.Source != MarketSource.SampleData));
}
