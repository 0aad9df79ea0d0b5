using System.Net.Http.Json;
using System.Text;
using System.Text.Json.Nodes;
using Microsoft.Data.Sqlite;

namespace TinRabbit.Server.Tests;

/// <summary>
/// Kills the program again and again at random moments: while it starts for the first time, while it updates an older database, while it
/// saves, and in the middle of an import. After each kill it must start again, with everything that was acknowledged and nothing half done.
/// </summary>
public sealed class KillRounds(int seed, string folder)
{
    private readonly Random _random = new(seed);
    private string _title = "";
    private int _revision;

    /// <summary>Saves that the server had acknowledged before it was killed.</summary>
    public int Acknowledged { get; private set; }

    /// <summary>Kills that came before the server was ready.</summary>
    public int KilledWhileStarting { get; private set; }

    /// <summary>Imports that were under way when the server was killed.</summary>
    public int KilledWhileImporting { get; private set; }

    /// <summary>One round: start and kill; start, check, write and kill.</summary>
    public async Task Round(int round)
    {
        // Somewhere in the start: on this machine it takes between one and three seconds.
        var process = RunningServer.Launch(folder, RunningServer.FreePort(), demo: true);
        _ = process.StandardError.ReadToEndAsync();
        await Task.Delay(_random.Next(round == 0 ? 4000 : 1800));
        process.Kill(entireProcessTree: true);
        var said = await process.StandardOutput.ReadToEndAsync();
        await process.WaitForExitAsync();
        process.Dispose();
        KilledWhileStarting += said.Contains("is ready", StringComparison.Ordinal) ? 0 : 1;
        using var server = await RunningServer.Start(folder, demo: true);
        await Check(server);
        using var stop = new CancellationTokenSource();
        var saving = Save(server, stop.Token);
        var importing = round % 2 == 0 ? Import(server, round) : Task.CompletedTask;
        await Task.Delay(_random.Next(50, 1500));
        KilledWhileImporting += importing.IsCompleted ? 0 : 1;
        server.Kill();
        await stop.CancelAsync();
        await Task.WhenAll(saving, importing);
    }

    private async Task Check(RunningServer server)
    {
        var shop = await server.Get("/api/shop");
        Assert.Equal(7, shop["products"]!.AsArray().Count(p => !p!["isPage"]!.GetValue<bool>()));
        // A first start that was killed was made again, picks and all.
        Assert.NotEmpty((await server.Get("/api/products/1/picks?marketId=longbarrow-us"))["picks"]!.AsArray());
        var listing = await server.Get("/api/listings/1");
        if (_revision > 0)
        {
            // The last save that was acknowledged, or the one that was under way.
            var (title, revision) = (listing["copy"]!["title"]!.GetValue<string>(), listing["revision"]!.GetValue<int>());
            Assert.True(
                (title == _title && revision == _revision) || (title == $"Title {_revision + 1}" && revision == _revision + 1),
                $"\"{title}\" at {revision}, \"{_title}\" at {_revision} was acknowledged"
            );
        }

        (_title, _revision) = (listing["copy"]!["title"]!.GetValue<string>(), listing["revision"]!.GetValue<int>());
        using var database = new SqliteConnection($"Data Source={Path.Combine(folder, "tinrabbit.db")};Pooling=False;Mode=ReadOnly");
        database.Open();
        Assert.Equal("ok", Ask("PRAGMA integrity_check(1)"));
        // Imports are all there, or not at all: each file has 60,000 terms of its own.
        Assert.Equal(0L, Ask("SELECT COUNT(*) FROM Imports WHERE Done = 0"));
        Assert.Equal(0L, (long)Ask("SELECT COUNT(*) FROM Terms WHERE MarketId = 'chalk-shelf-gb' AND Key LIKE 'sheet %'") % 60_000);
        Assert.Equal(0L, Ask("SELECT COUNT(*) FROM Readings r LEFT JOIN Terms t ON t.Id = r.TermId WHERE t.Id IS NULL"));

        object Ask(string sql)
        {
            using var command = database.CreateCommand();
            command.CommandText = sql;
            return command.ExecuteScalar()!;
        }
    }

    private async Task Save(RunningServer server, CancellationToken stop)
    {
        try
        {
            while (!stop.IsCancellationRequested)
            {
                var title = $"Title {_revision + 1}";
                var saved = await server.Client.PutAsJsonAsync(
                    "/api/listings/1/copy",
                    new { fields = new { title }, revision = _revision },
                    stop
                );
                if (!saved.IsSuccessStatusCode)
                    return;
                (_title, _revision) = (title, JsonNode.Parse(await saved.Content.ReadAsStringAsync(stop))!["revision"]!.GetValue<int>());
                Acknowledged++;
            }
        }
        catch (Exception e) when (e is HttpRequestException or OperationCanceledException or IOException) { }
    }

    private static async Task Import(RunningServer server, int round)
    {
        var file = new StringBuilder("term,volume\n");
        for (var i = 0; i < 60_000; i++)
            file.Append("sheet ").Append(round).Append(' ').Append(i).Append(',').Append(i % 997).Append('\n');
        try
        {
            using var begun = await server.Client.PostAsync(
                "/api/markets/chalk-shelf-gb/imports?name=terms.csv",
                new StringContent(file.ToString(), Encoding.UTF8, "text/csv")
            );
            var view = JsonNode.Parse(await begun.Content.ReadAsStringAsync())!;
            using var done = await server.Client.PostAsJsonAsync(
                $"/api/markets/chalk-shelf-gb/imports/{view["id"]}/run",
                new { look = view["look"], source = "kill" }
            );
            await done.Content.ReadAsStringAsync();
        }
        catch (Exception e) when (e is HttpRequestException or OperationCanceledException or IOException) { }
    }
}
