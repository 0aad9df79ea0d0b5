using System.Data.Common;
using System.Globalization;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using TinRabbit.Core;
using TinRabbit.Core.Platforms;
using TinRabbit.Market;
using TinRabbit.Server.Files.Tables;
using TinRabbit.Server.Journal;
using TinRabbit.Server.Listings;
using TinRabbit.Server.Shelf;
using TinRabbit.Server.Storage;
using TinRabbit.Server.Undo;

namespace TinRabbit.Server.Features.Watch;

/// <summary>A listing day by day: each list has one entry a day, null where nothing is known.</summary>
/// <param name="From">The first day; null where nothing is known of any.</param>
/// <param name="FirstPages">The share of the checked terms that were on the first page, 0–1.</param>
/// <param name="Terms">The rank of each term by day, 0 where it was not found; those that are searched most first.</param>
/// <param name="Sources">Where the figures came from.</param>
public sealed record HistoryView(
    DateOnly? From,
    int Days,
    IReadOnlyList<long?> Views,
    IReadOnlyList<long?> Clicks,
    IReadOnlyList<long?> Sales,
    IReadOnlyList<double?> FirstPages,
    IReadOnlyList<TermRanks> Terms,
    IReadOnlyList<string> Sources
);

/// <summary>The rank of one term by day.</summary>
public sealed record TermRanks(int Id, string Text, IReadOnlyList<int?> Ranks);

internal static class HistoryApi
{
    // A term's number and its rank are read as one number: the number times this, then the rank.
    private const long RankRoom = 4_000_000;

    public static void MapHistory(this IEndpointRouteBuilder app)
    {
        var api = app.MapGroup("/api/listings/{id:int}").WithTags("Watch");
        api.MapGet("/history", GetHistory).WithName("GetHistory");
        api.MapPost("/figures/import", ImportFigures)
            .WithName("ImportFigures")
            .Accepts<byte[]>("application/octet-stream")
            .ProducesValidationProblem();
        api.MapGet("/figures/export.csv", ExportFigures).WithName("ExportFigures");
    }

    private static async Task<Results<Ok<HistoryView>, NotFound>> GetHistory(int id, string marketId, TinContext db, CancellationToken stop)
    {
        if (!await db.Listings.AnyAsync(l => l.Id == id, stop))
            return TypedResults.NotFound();
        var figures = await DailyFigures.Of(db, id, marketId, stop);
        var terms = await db
            .FollowedTerms.AsNoTracking()
            .Where(t => t.ListingId == id && t.MarketId == marketId)
            .OrderBy(t => t.Id)
            .ToListAsync(stop);
        var volumes = await FoundTerms.Volumes(db, marketId, terms, stop);
        var checks = await FoundChecks.Of(db, id, marketId).AsNoTracking().Where(c => c.State != CheckState.Running).ToListAsync(stop);
        var known = figures.Days.Keys.Concat(checks.Select(c => c.Day)).ToList();
        if (known.Count == 0)
            return TypedResults.Ok(new HistoryView(null, 0, [], [], [], [], [], []));
        var (first, last) = (known.Min(), known.Max());
        // A wrong date in a file does not make a thousand years.
        if (last.DayNumber - first.DayNumber >= Bounds.Days)
            first = last.AddDays(1 - Bounds.Days);
        var days = last.DayNumber - first.DayNumber + 1;
        var ranks = terms.ToDictionary(t => t.Id, _ => new int?[days]);
        var pageSize = await FoundChecks.PageSizeOf(db, id, marketId, stop);
        var (onFirst, asked) = (new int[days], new int[days]);
        var dayOf = checks.ToDictionary(c => c.Id, c => c.Day.DayNumber - first.DayNumber);
        await ReadRanks(
            db,
            id,
            marketId,
            (check, term, rank) =>
            {
                if (dayOf.TryGetValue(check, out var day) && day >= 0 && ranks.TryGetValue(term, out var of))
                    of[day] = rank;
            },
            stop
        );
        foreach (var of in ranks.Values)
            for (var day = 0; day < days; day++)
                if (of[day] is { } rank)
                {
                    asked[day]++;
                    onFirst[day] += rank >= 1 && rank <= pageSize ? 1 : 0;
                }

        return TypedResults.Ok(
            new HistoryView(
                first,
                days,
                Each(f => f.Views),
                Each(f => f.Clicks),
                Each(f => f.Sales),
                [.. asked.Zip(onFirst, (all, some) => all == 0 ? (double?)null : (double)some / all)],
                [
                    .. terms
                        .OrderByDescending(t => volumes.GetValueOrDefault(t.Key) ?? -1)
                        .Select(t => new TermRanks(t.Id, t.Text, ranks[t.Id])),
                ],
                [.. figures.Days.Values.Select(f => f.Source).Distinct()]
            )
        );

        long?[] Each(Func<Figures, long?> of) =>
            [.. Enumerable.Range(0, days).Select(d => figures.Days.TryGetValue(first.AddDays(d), out var f) ? of(f) : null)];
    }

    // Hundreds of thousands of numbers: SQLite joins those of each check into one text of whole numbers, and these are taken apart here.
    private static async Task ReadRanks(TinContext db, int listingId, string marketId, Action<int, int, int?> note, CancellationToken stop)
    {
        await db.Database.OpenConnectionAsync(stop);
        await using var command = db.Database.GetDbConnection().CreateCommand();
        command.CommandText = $"""
            SELECT c.Id, (SELECT group_concat(f.TermId * {RankRoom} + CASE WHEN NOT f.Found THEN 1 WHEN f.Rank IS NULL THEN 0 ELSE min(f.Rank + 1, {RankRoom
                - 1}) END)
                          FROM Finds f WHERE f.CheckId = c.Id AND f.IsDone)
            FROM Checks c WHERE c.ListingId = @listing AND c.MarketId = @market AND c.DeletedAt IS NULL AND c.State <> 'Running' ORDER BY c.Day, c.Id
            """;
        Bind(command, "@listing", listingId);
        Bind(command, "@market", marketId);
        await using var rows = await command.ExecuteReaderAsync(stop);
        while (await rows.ReadAsync(stop))
        {
            if (rows.IsDBNull(1))
                continue;
            var check = rows.GetInt32(0);
            var text = rows.GetString(1).AsSpan();
            foreach (var part in text.Split(','))
            {
                var (term, rank) = Math.DivRem(long.Parse(text[part], CultureInfo.InvariantCulture), RankRoom);
                // Found without a rank is known, but not where; 0 is not found.
                note(check, (int)term, rank == 0 ? null : (int)rank - 1);
            }
        }
    }

    private static void Bind(DbCommand command, string name, object value)
    {
        var parameter = command.CreateParameter();
        (parameter.ParameterName, parameter.Value) = (name, value);
        command.Parameters.Add(parameter);
    }

    private static async Task<Results<Ok<Changed>, NotFound>> ImportFigures(
        int id,
        string marketId,
        string? name,
        TinContext db,
        DataFolder data,
        IMarket market,
        ChangeLog changes,
        HttpRequest request,
        CancellationToken stop
    )
    {
        if (await db.FindListing(id, stop) is not { } listing)
            return TypedResults.NotFound();
        var days = await ImportFiles.ReadOnce(data, db.Now, request.Body, file => FigureTables.Read(file, market.LastDay, stop), stop);
        if (days.Count == 0)
            throw new InvalidInputException([new("file", "There is no day in it.")]);
        var source = ImportFiles.SourceOf(name);
        var rows = days.Select(d => FigureRow.Of(id, marketId, d, source)).ToList();
        var watch = await WatchBefore.Of(db, id, marketId, stop);
        await db.InOneWrite(
            async () =>
            {
                await db.WatchOf(id, marketId, stop);
                db.Figures.AddRange(rows);
                await db.SaveChangesAsync(stop);
            },
            stop
        );
        return TypedResults.Ok(
            await changes.Save(
                WatchMessages.AddedFigures(rows.Count),
                new(Screen.Watch, listing.ProductId, id),
                [RemoveRows.Of<FigureRow>(rows.Select(r => r.Id)), watch],
                stop
            )
        );
    }

    private static async Task<Results<FileContentHttpResult, NotFound>> ExportFigures(
        int id,
        string marketId,
        TinContext db,
        CancellationToken stop
    ) =>
        await db.Listings.AnyAsync(l => l.Id == id, stop)
            ? CsvFile.Of(
                FigureTables.Csv(
                    (await DailyFigures.Of(db, id, marketId, stop))
                        .Days.OrderBy(d => d.Key)
                        .Select(d => (new DayFigures(d.Key, d.Value.Views, d.Value.Clicks, d.Value.Sales), d.Value.Source))
                ),
                "daily figures.csv"
            )
            : TypedResults.NotFound();
}
