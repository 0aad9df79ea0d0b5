using System.Text.Json;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.DependencyInjection;
using TinRabbit.Core;
using TinRabbit.Server.Listings;
using TinRabbit.Server.Storage;

namespace TinRabbit.Server.Tests;

/// <summary>When a version begins, and what a save keeps.</summary>
public sealed class ListingEditorTests : IDisposable
{
    private readonly TestShop _shop = new();
    private readonly MovingClock _clock = new();

    public void Dispose() => _shop.Dispose();

    [Fact]
    public async Task A_version_begins_after_a_pause_of_more_than_45_seconds()
    {
        var listing = await _shop.ListingOf(await _shop.AddProduct(), "hedgerow-fair");
        await Save(listing, "Wren box", 0);
        for (var revision = 1; revision <= 3; revision++)
        {
            _clock.Now += ListingEditor.Pause; // 45 seconds are not a pause yet
            await Save(listing, $"Wren box {revision}", revision);
        }

        Assert.Empty(await Versions(listing));
        _clock.Now += ListingEditor.Pause + TimeSpan.FromMilliseconds(1);
        await Save(listing, "Wren nest box", 4);
        var version = Assert.Single(await Versions(listing));
        Assert.Equal((VersionReason.Pause, "Wren box 3"), (version.Reason, TitleOf(version.Copy)));
        Assert.Equal(["Wren box 3"], await Takes(listing));
    }

    [Fact]
    public async Task A_reason_begins_a_version_at_once()
    {
        var listing = await _shop.ListingOf(await _shop.AddProduct(), "hedgerow-fair");
        await Save(listing, "Wren box", 0);
        await Save(listing, "Cedar wren box", 1, VersionReason.Fill);
        Assert.Equal([VersionReason.Fill], (await Versions(listing)).Select(v => v.Reason));
    }

    [Fact]
    public async Task The_same_text_is_saved_already_and_other_text_from_an_old_revision_is_refused()
    {
        var listing = await _shop.ListingOf(await _shop.AddProduct(), "hedgerow-fair");
        Assert.Equal(SaveResult.Saved, await Save(listing, "Wren box", 0));
        Assert.Equal(SaveResult.Unchanged, await Save(listing, "Wren box", 0));
        Assert.Equal(SaveResult.Conflict, await Save(listing, "Robin box", 0));
        Assert.Equal(SaveResult.Saved, await Save(listing, "Robin box", 1));
    }

    [Fact]
    public async Task A_page_of_a_listing_that_is_there_moves_its_revision_on_so_that_an_open_window_notices()
    {
        var product = await _shop.AddProduct();
        var listing = await _shop.ListingOf(product, "web-shop");
        await _shop.Put($"/api/listings/{listing}/copy", new { fields = new { body = "Cedar." }, revision = 0 });
        var added = await _shop.Post("/api/pages", new { kind = "product", productId = product });
        var page = (await _shop.Get("/api/pages"))["pages"]!.AsArray().Single(p => p!["listingId"]!.GetValue<int>() == listing)!;
        Assert.NotEqual("", page["slug"]!.GetValue<string>());

        // A window that was opened before does not save over the heading and the slug of the page.
        await _shop.Put($"/api/listings/{listing}/copy", new { fields = new { body = "Larch." }, revision = 1 }, 409);
        Assert.Equal([VersionReason.PageAdded], (await Versions(listing)).Select(v => v.Reason));

        await _shop.Post($"/api/changes/undo?sure=true&change={added["id"]}", new { });
        var copy = (await _shop.Get($"/api/listings/{listing}"))["copy"]!.AsObject();
        Assert.Equal(["body"], copy.Select(f => f.Key));
    }

    [Fact]
    public async Task A_change_to_several_listings_keeps_the_title_as_a_take_and_undo_takes_it_back()
    {
        var listing = await _shop.ListingOf(await _shop.AddProduct(), "hedgerow-fair");
        await Save(listing, "Cedar wren box", 0);
        var edit = new
        {
            ids = new[] { listing },
            kind = "replace",
            find = "cedar",
            replacement = "larch",
            matchesCase = false,
            wholeWords = true,
            roles = Array.Empty<string>(),
            country = "us",
        };
        var planned = (await _shop.Post("/api/listings/edit/preview", edit))["changes"]!.AsArray();
        var done = await _shop.Post(
            "/api/listings/edit",
            new
            {
                edit,
                keys = planned.Select(p => p!["key"]!.GetValue<string>()),
                revisions = new Dictionary<string, int> { [$"{listing}"] = 1 },
            }
        );
        Assert.Equal(["Cedar wren box"], await Takes(listing));
        await _shop.Post($"/api/changes/undo?sure=true&change={done["id"]}", new { });
        Assert.Empty(await Takes(listing));
        Assert.Equal("Cedar wren box", (await _shop.Get($"/api/listings/{listing}"))["copy"]!["title"]!.GetValue<string>());
    }

    [Fact]
    public async Task Versions_and_takes_come_in_pages()
    {
        var listing = await _shop.ListingOf(await _shop.AddProduct(), "hedgerow-fair");
        for (var revision = 0; revision < Bounds.PageRows + 4; revision++)
        {
            _clock.Now += TimeSpan.FromMinutes(1);
            await Save(listing, $"Wren box {revision}", revision);
        }

        var first = (await _shop.Get($"/api/listings/{listing}/versions")).AsArray();
        Assert.Equal(Bounds.PageRows, first.Count);
        var rest = (await _shop.Get($"/api/listings/{listing}/versions?before={first[^1]!["id"]}")).AsArray();
        Assert.Equal(3, rest.Count);
        Assert.Empty(first.Select(v => v!["id"]!.GetValue<int>()).Intersect(rest.Select(v => v!["id"]!.GetValue<int>())));

        var draft = new { marketId = "hedgerow-fair-us", fields = new { title = "Wren box 0" } };
        var takes = (await _shop.Post($"/api/listings/{listing}/takes/weighed", draft)).AsArray();
        Assert.Equal(Bounds.PageRows, takes.Count); // the title in use is a take of a later page, and is not shown twice
        var later = (await _shop.Post($"/api/listings/{listing}/takes/weighed?before={takes[^1]!["id"]}", draft)).AsArray();
        Assert.Contains(later, t => t!["text"]!.GetValue<string>() == "Wren box 0" && t["inUse"]!.GetValue<bool>());
    }

    private async Task<SaveResult> Save(int listing, string title, int revision, VersionReason? reason = null)
    {
        await using var scope = _shop.Services.CreateAsyncScope();
        await using var db = new TinContext(scope.ServiceProvider.GetRequiredService<DbContextOptions<TinContext>>(), clock: _clock);
        var row = await db.FindListing(listing, default);
        return await new ListingEditor(db).Save(row!, JsonSerializer.SerializeToElement(new { title }), revision, reason, default);
    }

    private async Task<List<VersionRow>> Versions(int listing)
    {
        await using var scope = _shop.Services.CreateAsyncScope();
        return await scope
            .ServiceProvider.GetRequiredService<TinContext>()
            .Versions.Where(v => v.ListingId == listing)
            .OrderBy(v => v.Id)
            .ToListAsync();
    }

    private async Task<List<string>> Takes(int listing)
    {
        await using var scope = _shop.Services.CreateAsyncScope();
        return await scope
            .ServiceProvider.GetRequiredService<TinContext>()
            .Takes.Where(t => t.ListingId == listing)
            .Select(t => t.Text)
            .ToListAsync();
    }

    private static string TitleOf(ListingText text) => JsonDocument.Parse(text.Json).RootElement.GetProperty("title").GetString()!;

    private sealed class MovingClock : TimeProvider
    {
        public DateTimeOffset Now { get; set; } = DateTimeOffset.UtcNow;

        public override DateTimeOffset GetUtcNow() => Now;
    }
}
