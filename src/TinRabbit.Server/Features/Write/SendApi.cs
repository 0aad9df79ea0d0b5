using TinRabbit.Server.Files.Documents;
using TinRabbit.Server.Files.Tables;
using TinRabbit.Server.Journal;
using TinRabbit.Server.Listings;

namespace TinRabbit.Server.Features.Write;

/// <summary>Where to send a listing.</summary>
public sealed record SendRequest(string MarketId);

/// <summary>Since when a listing's texts are live, though they were published elsewhere.</summary>
/// <param name="Since">The day; today or before.</param>
public sealed record LiveRequest(string MarketId, DateOnly Since);

/// <summary>A listing that was sent.</summary>
/// <param name="NoticedAt">When the market's search results update; until then they show the earlier texts.</param>
/// <param name="IsNoticed">Whether they have, in the market's time.</param>
/// <param name="Changed">Whether the listing has changed since.</param>
/// <param name="ByHand">Whether the seller marked it as published, so that no market received it.</param>
public sealed record SentView(DateTime At, DateTime NoticedAt, bool IsNoticed, string MarketId, bool Changed, bool ByHand);

internal static class SendApi
{
    private const string Xlsx = "application/vnd.openxmlformats-officedocument.spreadsheetml.sheet";

    public static void MapSend(this IEndpointRouteBuilder app)
    {
        var api = app.MapGroup("/api/listings/{id:int}");
        api.MapPost("/send", SendListing);
        api.MapPost("/live", MarkAsLive);
        api.MapGet("/sent", GetSent);
        api.MapGet("/export.csv", ExportCsv);
        api.MapGet("/export.xlsx", ExportXlsx);
        api.MapGet("/export.json", ExportJson);

        // For upload: all listings of the shop on a platform, one row each.
        app.MapGet("/api/platforms/{platformId}/listings.{kind:regex(^(csv|xlsx)$)}", ExportListings);
    }

    private static async Task<SentView> SendListing(
        int id,
        SendRequest request,
        TinContext db,
        ListingSender sender,
        IMarket market,
        CancellationToken stop
    )
    {
        var listing = await db.FindListing(id, stop).OrNotThere();
        return View(await sender.Send(listing, request.MarketId, stop), listing, market.Now);
    }

    private static async Task<Changed> MarkAsLive(
        int id,
        LiveRequest request,
        TinContext db,
        ListingSender sender,
        CancellationToken stop
    ) => await sender.MarkLive(await db.FindListing(id, stop).OrNotThere(), request.MarketId, request.Since, stop);

    private static async Task<List<SentView>> GetSent(int id, TinContext db, IMarket market, CancellationToken stop)
    {
        var listing = await db.FindListing(id, stop).OrNotThere();
        return (await db.Sent.AsNoTracking().Where(s => s.ListingId == id).OrderByDescending(s => s.Id).Take(20).ToListAsync(stop))
            .Select(s => View(s, listing, market.Now))
            .ToList();
    }

    private static async Task<FileContentHttpResult> ExportCsv(int id, TinContext db, CancellationToken stop)
    {
        var listing = await db.FindListing(id, stop).OrNotThere();
        return await Table([listing], "csv", FileName(listing), db, stop);
    }

    private static async Task<FileContentHttpResult> ExportXlsx(int id, TinContext db, CancellationToken stop)
    {
        var listing = await db.FindListing(id, stop).OrNotThere();
        return await Table([listing], "xlsx", FileName(listing), db, stop);
    }

    private static async Task<FileContentHttpResult> ExportJson(int id, TinContext db, CancellationToken stop)
    {
        var listing = await db.FindListing(id, stop).OrNotThere();
        var json = new JsonObject
        {
            ["product"] = listing.Product.Name,
            ["platform"] = listing.PlatformId,
            ["lead"] = listing.LeadKey,
            ["fields"] = listing.Copy.Fields(),
        };
        return TypedResults.File(
            Encoding.UTF8.GetBytes(json.ToJsonString(new(ListingText.Format) { WriteIndented = true })),
            "application/json",
            $"{FileName(listing)}.json"
        );
    }

    private static async Task<FileContentHttpResult> ExportListings(string platformId, string kind, TinContext db, CancellationToken stop)
    {
        var listings = await db
            .Listings.AsNoTracking()
            .Include(l => l.Platform)
            .Include(l => l.Product)
            .Where(l => l.PlatformId == platformId && l.Copy != ListingText.Empty)
            .OrderBy(l => l.ProductId)
            .ToListAsync(stop);
        if (listings.Count == 0)
            throw new NotThereException();
        return await Table(listings, kind, platformId, db, stop);
    }

    // Laid out as the marketplace's own export that was imported last; where there was none, by the platform's fields.
    private static async Task<FileContentHttpResult> Table(
        List<ListingRow> listings,
        string kind,
        string name,
        TinContext db,
        CancellationToken stop
    )
    {
        var platform = Platform(listings[0]);
        var shape = await db
            .UploadShapes.AsNoTracking()
            .Where(s => s.PlatformId == platform.Id)
            .OrderByDescending(s => s.Id)
            .FirstOrDefaultAsync(stop);
        string[] heads = shape is null ? [.. ListingFiles.Columns(platform)] : [.. shape.Columns.Select(c => c.Head)];
        List<IEnumerable<string>> rows =
        [
            .. listings.Select(l =>
                shape is null
                    ? ListingFiles.Cells(platform, l.Product.Name, l.Copy.On(platform))
                    : UploadTables.Cells(shape.Columns, l, platform)
            ),
        ];
        return kind == "csv"
            ? CsvFile.Of(CsvText.Of(heads, rows), $"{name}.csv")
            : TypedResults.File(ListingFiles.Xlsx(heads, rows), Xlsx, $"{name}.xlsx");
    }

    private static SentView View(SentRow sent, ListingRow listing, DateTime now) =>
        new(sent.At, sent.NoticedAt, sent.NoticedAt <= now, sent.MarketId, sent.Copy != listing.Copy, sent.ByHand);

    private static Platform Platform(ListingRow listing) => listing.Platform.Profile;

    private static string FileName(ListingRow listing) => $"{Tokens.Key(listing.Product.Name).Replace(' ', '-')}-{listing.PlatformId}";
}
