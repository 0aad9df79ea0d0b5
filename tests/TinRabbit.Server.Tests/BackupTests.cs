using System.Net.Http.Json;
using System.Text.Json.Nodes;
using Microsoft.Data.Sqlite;
using Microsoft.Extensions.DependencyInjection;
using Microsoft.Extensions.Logging.Abstractions;
using TinRabbit.Server.Hosting;
using TinRabbit.Server.Shelf;
using TinRabbit.Server.Storage;

namespace TinRabbit.Server.Tests;

/// <summary>Backups: made on demand and by themselves, verified, and restored while the program runs.</summary>
public sealed class BackupTests : IDisposable
{
    private readonly TestShop shop = new();

    public void Dispose() => shop.Dispose();

    [Fact]
    public async Task A_backup_is_restored_with_everything_that_was_in_it_and_the_present_state_is_kept()
    {
        var product = await shop.AddProduct("Before");
        var listing = await shop.ListingOf(product, "longbarrow");
        await shop.Put($"/api/listings/{listing}/copy", new { fields = new { title = "Before" }, revision = 0 });
        await shop.Post("/api/markets/longbarrow-us/paste", new { text = "owl box\t9", source = "notebook" });
        var backup = await shop.Post("/api/backups", new { });
        Assert.Equal("manual", backup["kind"]!.GetValue<string>());
        for (var i = 1; i < 4; i++)
            await shop.Put($"/api/listings/{listing}/copy", new { fields = new { title = $"After {i}" }, revision = i });
        await shop.AddProduct("Later");
        await shop.Post("/api/markets/longbarrow-us/paste", new { text = "owl box\t7\nbat box\t5", source = "notebook" });

        var kept = await shop.Post("/api/backups/restore", new { name = backup["name"]!.GetValue<string>() });
        Assert.Equal("restore", kept["kind"]!.GetValue<string>());
        Assert.Equal(["Before"], await Names());
        Assert.Equal("Before", (await shop.Get($"/api/listings/{listing}"))["copy"]!["title"]!.GetValue<string>());
        // Nothing that was kept in memory shows the other shop.
        Assert.Equal(
            ["9 owl box"],
            (await shop.Shelf("longbarrow-us", new { }))["rows"]!.AsArray().Select(r => $"{r!["numbers"]!["volume"]} {r["text"]}")
        );
        // A window that was open before must not save over the restored text by a revision that happens to fit.
        var now = (await shop.Get($"/api/listings/{listing}"))["revision"]!.GetValue<int>();
        Assert.True(now > 4, $"revision {now}");
        await shop.Put($"/api/listings/{listing}/copy", new { fields = new { title = "From a window of before" }, revision = 4 }, 409);
        await shop.Put($"/api/listings/{listing}/copy", new { fields = new { title = "Goes on" }, revision = now });

        // And back to what there was before the restore.
        await shop.Post("/api/backups/restore", new { name = kept["name"]!.GetValue<string>() });
        Assert.Equal(["Before", "Later"], await Names());
        shop.Restart();
        Assert.Equal(["Before", "Later"], await Names());

        async Task<string[]> Names() =>
            [.. (await shop.Get("/api/shop"))["products"]!.AsArray().Select(p => p!["name"]!.GetValue<string>())];
    }

    [Fact]
    public async Task After_a_restore_no_open_window_saves_over_the_settings_of_the_web_shop()
    {
        object Site(string brand, JsonNode? revision) =>
            new
            {
                brand,
                address = "",
                language = "en",
                country = "us",
                titleSuffix = "",
                revision,
            };
        var opened = (await shop.Get("/api/site"))["revision"]!;
        await shop.Put("/api/site", Site("Before", opened.DeepClone()));
        var backup = await shop.Post("/api/backups", new { });
        var window = (await shop.Get("/api/site"))["revision"]!;
        await shop.Put("/api/site", Site("After", window.DeepClone()));
        await shop.Post("/api/backups/restore", new { name = backup["name"]!.GetValue<string>() });
        await shop.Put("/api/site", Site("From a window of before", window.DeepClone()), 409);
        Assert.Equal("Before", (await shop.Get("/api/site"))["brand"]!.GetValue<string>());
    }

    [Fact]
    public async Task A_damaged_or_foreign_backup_is_refused_and_the_shop_stays()
    {
        await shop.AddProduct("Mine");
        var backup = await shop.Post("/api/backups", new { });
        var file = Path.Combine(shop.Folder, "backups", backup["name"]!.GetValue<string>());
        var bytes = await File.ReadAllBytesAsync(file);
        bytes.AsSpan(bytes.Length / 2, 5000).Fill(7);
        await File.WriteAllBytesAsync(file, bytes);
        var refused = await shop.Post("/api/backups/restore", new { name = backup["name"]!.GetValue<string>() }, 400);
        Assert.Contains("The shop is as it was", refused.ToJsonString());
        Assert.Single((await shop.Get("/api/shop"))["products"]!.AsArray());
        foreach (var name in new[] { "../tinrabbit.db", "nothing.db", "" })
            await shop.Post("/api/backups/restore", new { name }, 404);
        var foreign = Path.Combine(shop.Folder, "backups", "20260101-000000000-manual.db");
        using (var other = new SqliteConnection($"Data Source={foreign};Pooling=False"))
        {
            other.Open();
            using var command = other.CreateCommand();
            command.CommandText = "CREATE TABLE Recipes (Id INTEGER)";
            command.ExecuteNonQuery();
        }

        await shop.Post("/api/backups/restore", new { name = Path.GetFileName(foreign) }, 400);
    }

    [Fact]
    public async Task What_is_written_during_a_restore_is_taken_or_told()
    {
        using var busy = new TestShop(demo: true);
        var backup = (await busy.Post("/api/backups", new { }))["name"]!.GetValue<string>();
        var product = await busy.AddProduct("Owl box");
        var (done, answers) = (false, new System.Collections.Concurrent.ConcurrentBag<(string Path, int Status, string Says)>());
        (string, object)[] writes =
        [
            (
                $"/api/products/{product}/picks",
                new
                {
                    texts = new[] { "owl box" },
                    fit = "core",
                    home = "anywhere",
                }
            ),
            (
                "/api/products",
                new
                {
                    name = "Perch",
                    facts = (object?)null,
                    pictures = (object?)null,
                }
            ),
            ("/api/markets/hedgerow-fair-us/paste", new { text = "owl ladder\t70", source = "notes" }),
            ("/api/filters", new { name = "Roomy", filters = "headroom=60" }),
            (
                "/api/notes",
                new
                {
                    text = "Free postage",
                    kinds = new[] { "promotion" },
                    day = "2026-10-01",
                }
            ),
            ("/api/pages", new { kind = "content", name = "Owls" }),
            ($"/api/products/{product}/listings/longbarrow", new { }),
            ("/api/changes/undo", new { }),
        ];
        var writers = writes
            .Select(w =>
                Task.Run(async () =>
                {
                    while (!Volatile.Read(ref done))
                    {
                        using var response = await busy.Client.PostAsJsonAsync(w.Item1, w.Item2);
                        answers.Add((w.Item1, (int)response.StatusCode, await response.Content.ReadAsStringAsync()));
                    }
                })
            )
            .ToList();
        for (var round = 0; round < 4; round++)
            await busy.Post("/api/backups/restore", new { name = backup });
        Volatile.Write(ref done, true);
        await Task.WhenAll(writers);
        Assert.Equal([], answers.Where(a => a.Status == 500).Select(a => $"{a.Path} {a.Says}").Distinct());
        Assert.Contains(answers, a => a.Status == 200);
        Assert.NotEmpty((await busy.Get("/api/shop"))["products"]!.AsArray());
    }

    [Fact]
    public void The_last_of_each_kind_are_kept()
    {
        using var folder = DataFolder.Open(Directory.CreateTempSubdirectory("tin-rabbit-test-").FullName);
        TestShop.CopyTo(folder.Path, demo: false);
        var now = new DateTime(2026, 1, 1, 0, 0, 0, DateTimeKind.Utc);
        for (var day = 0; day < Backups.Kept + 3; day++)
            Backups.Write(folder, folder.Database, BackupKind.Daily, now.AddDays(day));
        var manual = Backups.Write(folder, folder.Database, BackupKind.Manual, now);
        var all = Backups.All(folder);
        Assert.Equal(Backups.Kept, all.Count(b => b.Kind == BackupKind.Daily));
        Assert.Equal(now.AddDays(Backups.Kept + 2), all[0].At);
        Assert.Contains(manual, all);
        Backups.Verify(Path.Combine(folder.Backups, manual.Name));
        Directory.Delete(folder.Path, true);
    }

    [Fact]
    public async Task A_day_after_the_last_one_another_is_made()
    {
        var folder = shop.Services.GetRequiredService<DataFolder>();
        var clock = new Clock();
        using var service = new BackupService(
            folder,
            new(),
            shop.Services.GetRequiredService<Shelves>(),
            shop.Services.GetRequiredService<MarketSetup>(),
            clock,
            NullLogger<BackupService>.Instance
        );
        await service.StartAsync(default);
        await Until(() => Daily() == 1);
        var asked = clock.Waits;
        await Until(() => clock.Waits > asked + 2);
        Assert.Equal(1, Daily());
        clock.Now = clock.Now.AddHours(25);
        await Until(() => Daily() == 2);
        await service.StopAsync(default);

        int Daily() => service.All().Count(b => b.Kind == BackupKind.Daily);
    }

    private static async Task Until(Func<bool> holds)
    {
        using var patience = new CancellationTokenSource(TimeSpan.FromMinutes(3));
        while (!holds())
            await Task.Delay(5, patience.Token);
    }

    // A clock on which every wait is over at once.
    private sealed class Clock : TimeProvider
    {
        public DateTimeOffset Now { get; set; } = new(2026, 3, 1, 8, 0, 0, TimeSpan.Zero);

        public int Waits { get; private set; }

        public override DateTimeOffset GetUtcNow() => Now;

        public override ITimer CreateTimer(TimerCallback callback, object? state, TimeSpan dueTime, TimeSpan period)
        {
            Waits++;
            return base.CreateTimer(callback, state, TimeSpan.FromMilliseconds(5), Timeout.InfiniteTimeSpan);
        }
    }
}
