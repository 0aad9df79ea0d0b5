namespace TinRabbit.Server.Shelf;

/// <content>Numbers that few questions need, read when one does, and numbers of terms by their keys.</content>
public sealed partial class Shelves
{
    private static readonly object NoWeb = new();

    /// <summary>Asks a market's shelf for a search, with the numbers that it needs.</summary>
    public async Task<T> Search<T>(TinContext db, string marketId, ShelfQuery query, Func<ShelfColumns, T> question, CancellationToken stop)
    {
        while (true)
        {
            if (query.NeedsWeb)
                await TakeWeb(db, marketId, stop);
            if (query.NeedsTrends && !await Query(db, marketId, s => s.HasTrends, stop))
                await TakeIn(db, marketId, ShelfReader.ReadTrends, stop);
            if (query.NeedsEarnings && !await Query(db, marketId, s => s.HasEarnings, stop))
                await TakeIn(db, marketId, ShelfReader.ReadEarnings, stop);
            // An import may have taken the shelf's place in between.
            var (isReady, answer) = await Query(
                db,
                marketId,
                s =>
                    (!query.NeedsWeb || s.HasWeb) && (!query.NeedsTrends || s.HasTrends) && (!query.NeedsEarnings || s.HasEarnings)
                        ? (true, question(s))
                        : (false, default(T)),
                stop
            );
            if (isReady)
                return answer!;
        }
    }

    private async Task TakeIn(
        TinContext db,
        string marketId,
        Action<ShelfColumns, SQLitePCL.sqlite3, string, CancellationToken> read,
        CancellationToken stop
    )
    {
        await db.Database.OpenConnectionAsync(stop);
        try
        {
            await Query(
                db,
                marketId,
                shelf =>
                {
                    read(shelf, HandleOf(db), marketId, stop);
                    return true;
                },
                stop
            );
        }
        finally
        {
            await db.Database.CloseConnectionAsync();
        }
    }

    private async Task TakeWeb(TinContext db, string marketId, CancellationToken stop)
    {
        var taken = await Query(db, marketId, s => s.WebFrom, stop);
        if (WebOf(marketId) is not { } webId)
        {
            if (taken is null)
                await Give([], NoWeb);
            return;
        }

        var (from, volumes) = await Query(
            db,
            webId,
            web => (From: (object)(web, web.Changes), Volumes: taken?.Equals((web, web.Changes)) == true ? null : web.VolumesByKey()),
            stop
        );
        if (volumes is not null)
            await Give(volumes, from);

        Task<bool> Give(Dictionary<string, double> byKey, object stamp) =>
            Query(
                db,
                marketId,
                shelf =>
                {
                    shelf.TakeWeb(key => byKey.GetValueOrDefault(key, double.NaN), stamp);
                    return true;
                },
                stop
            );
    }

    /// <summary>Searches a month of some terms on the web of the same country.</summary>
    public async Task<WebVolumes> WebVolumesOf(TinContext db, string marketId, IReadOnlyCollection<string> keys, CancellationToken stop) =>
        WebOf(marketId) is { } webId
            ? new(await VolumesOf(db, webId, keys, stop), (await db.StatisticsOf(webId, stop)).VolumeThirds)
            : WebVolumes.None;

    /// <summary>Searches a month of terms by key, where they are known.</summary>
    public static async Task<Dictionary<string, long>> VolumesOf(
        TinContext db,
        string marketId,
        IReadOnlyCollection<string> keys,
        CancellationToken stop
    )
    {
        var volumes = new Dictionary<string, long>(StringComparer.Ordinal);
        foreach (var some in keys.Chunk(400))
        foreach (
            var term in await db
                .Terms.Where(t => t.MarketId == marketId && some.Contains(t.Key) && t.Reading!.Volume != null)
                .Select(t => new { t.Key, Volume = t.Reading!.Volume!.Value })
                .ToListAsync(stop)
        )
            volumes[term.Key] = term.Volume;
        return volumes;
    }

    /// <summary>What is known of the terms on a market's shelf, by key; those that are not on it are left out.</summary>
    public async Task<IReadOnlyDictionary<string, (string Text, Measured Numbers)>> MeasuredOf(
        TinContext db,
        string marketId,
        IReadOnlyCollection<string> keys,
        CancellationToken stop
    ) => await MeasuredOf(db, marketId, (await TermsOf(db, marketId, keys, stop)).Values, stop);

    /// <summary>The same of terms that were read with their readings.</summary>
    public async Task<IReadOnlyDictionary<string, (string Text, Measured Numbers)>> MeasuredOf(
        TinContext db,
        string marketId,
        IReadOnlyCollection<TermRow> terms,
        CancellationToken stop
    )
    {
        var web = await WebVolumesOf(db, marketId, [.. terms.Select(t => t.Key)], stop);
        return await Query(
            db,
            marketId,
            shelf => terms.ToDictionary(t => t.Key, t => (t.Text, Measured.Of(t, shelf).With(web, t.Key)), StringComparer.Ordinal),
            stop
        );
    }

    // The market of the web searches of the same country; null for the web itself.
    private string? WebOf(string marketId) =>
        market.Places.FirstOrDefault(p => p.Id == marketId) is { } place && place.PlatformId != MarketPlace.Web
            ? market.Places.FirstOrDefault(p => p.PlatformId == MarketPlace.Web && p.Country == place.Country)?.Id
            : null;
}
