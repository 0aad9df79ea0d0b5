using System.Data.Common;
using TinRabbit.Core.Watching;
using TinRabbit.Server.Journal;
using TinRabbit.Server.Shelf;

namespace TinRabbit.Server.Features.Watch;

/// <summary>A listing in a market day by day, from the database.</summary>
internal sealed class ListingHistory(TinContext db)
{
    // A term's number and its rank are read as one number: the number times this, then the rank.
    private const long RankRoom = 4_000_000;

    public async Task<HistoryView> Load(int listingId, string marketId, CancellationToken stop)
    {
        var series = await db.SeriesOf(listingId, marketId, stop);
        var checks = await FoundChecks
            .Of(db, listingId, marketId)
            .AsNoTracking()
            .Where(c => c.State != CheckState.Running)
            .Select(c => new { c.Id, c.Day })
            .ToListAsync(stop);
        if (DaysOf([.. series.Days.Keys, .. checks.Select(c => c.Day)]) is not { } range)
            return new(null, 0, [], [], [], [], [], []);
        var (first, days) = range;
        var terms = await db
            .FollowedTerms.AsNoTracking()
            .Where(t => t.ListingId == listingId && t.MarketId == marketId)
            .OrderBy(t => t.Id)
            .ToListAsync(stop);
        var volumes = await Shelves.VolumesOf(db, marketId, [.. terms.Select(t => t.Key)], stop);
        var ranks = terms.ToDictionary(t => t.Id, _ => new int?[days]);
        var dayOf = checks.ToDictionary(c => c.Id, c => c.Day.DayNumber - first.DayNumber);
        await ReadRanks(listingId, marketId, Note, stop);
        return new(
            first,
            days,
            Each(f => f.Views),
            Each(f => f.Clicks),
            Each(f => f.Sales),
            FirstPage.Shares(ranks.Values, days, await FoundChecks.PageSizeOf(db, listingId, marketId, stop)),
            [.. terms.OrderByDescending(t => volumes.GetValueOrDefault(t.Key, -1)).Select(t => new TermRanks(t.Id, t.Text, ranks[t.Id]))],
            [.. series.Days.Values.Select(f => f.Source).Distinct()]
        );

        void Note(int check, int term, int? rank)
        {
            if (dayOf.TryGetValue(check, out var day) && day >= 0 && ranks.TryGetValue(term, out var of))
                of[day] = rank;
        }

        long?[] Each(Func<DayMetrics, long?> of) =>
            [.. Enumerable.Range(0, days).Select(d => series.Days.TryGetValue(first.AddDays(d), out var known) ? of(known) : null)];
    }

    // Limits the range to Bounds.Days: a date in a file may be wrong.
    private static (DateOnly First, int Days)? DaysOf(IReadOnlyCollection<DateOnly> known)
    {
        if (known.Count == 0)
            return null;
        var last = known.Max();
        var days = Math.Min(Bounds.Days, last.DayNumber - known.Min().DayNumber + 1);
        return (last.AddDays(1 - days), days);
    }

    // Hundreds of thousands of numbers: SQLite joins those of each check into one text of whole numbers, and these are taken apart here.
    private async Task ReadRanks(int listingId, string marketId, Action<int, int, int?> note, CancellationToken stop)
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
}
