using Microsoft.Data.Sqlite;

namespace TinRabbit.Server.Tests;

/// <summary>A found check in a program that is killed.</summary>
public sealed class WatchProcessTests : IDisposable
{
    private const string Us = "hedgerow-fair-us";
    private const int Terms = 2000;
    private readonly string _folder = Directory.CreateTempSubdirectory("tin-rabbit-killed-check-").FullName;

    public void Dispose() => Directory.Delete(_folder, true);

    private List<(int Term, bool Done, bool Found, int? Rank)> Rows(int check)
    {
        using var db = new SqliteConnection($"Data Source={Path.Combine(_folder, "tinrabbit.db")};Pooling=False");
        db.Open();
        using var command = db.CreateCommand();
        command.CommandText = "SELECT TermId, IsDone, Found, Rank FROM Finds WHERE CheckId = @check ORDER BY TermId";
        command.Parameters.AddWithValue("@check", check);
        using var rows = command.ExecuteReader();
        var all = new List<(int, bool, bool, int?)>();
        while (rows.Read())
            all.Add((rows.GetInt32(0), rows.GetBoolean(1), rows.GetBoolean(2), rows.IsDBNull(3) ? null : rows.GetInt32(3)));
        return all;
    }

    [Fact]
    public async Task A_killed_server_resumes_a_check_without_repeated_or_lost_rows()
    {
        TestShop.CopyTo(_folder, demo: true);
        int check;
        var path = "";
        // The demo's nest box; a listing that the market knows, without terms of another one.
        using (var server = await RunningServer.Start(_folder, demo: true))
        {
            var shop = await server.Get("/api/shop");
            var product = shop["products"]!.AsArray().Single(p => p!["name"]!.GetValue<string>() == "Garden birds wall chart")!;
            path = $"/api/listings/{product["listings"]!["hedgerow-fair"]}/checks";
            foreach (var term in (await server.Get($"{path}?marketId={Us}"))["terms"]!.AsArray())
                await server.Post($"{path}/unfollow", new { terms = new[] { term!["id"]!.GetValue<int>() } });
            var begun = await server.Post(
                path,
                new { marketId = Us, terms = Enumerable.Range(0, Terms).Select(i => i % 3 == 0 ? $"wall chart {i}" : $"garden birds {i}") }
            );
            check = begun["id"]!.GetValue<int>();
            while ((await server.Get($"{path}/{check}"))["done"]!.GetValue<int>() == 0)
                await Task.Delay(5);
            server.Kill();
        }

        var atKill = Rows(check);
        Assert.Equal(Terms, atKill.Count);
        Assert.InRange(atKill.Count(r => r.Done), 1, Terms - 1);
        using (var server = await RunningServer.Start(_folder, demo: true))
        {
            for (var i = 0; i < 3600 && (await server.Get($"{path}/{check}"))["state"]!.GetValue<string>() == "running"; i++)
                await Task.Delay(50);
            var ended = await server.Get($"{path}/{check}");
            Assert.Equal(("finished", Terms), (ended["state"]!.GetValue<string>(), ended["done"]!.GetValue<int>()));
        }

        var after = Rows(check);
        Assert.Equal(atKill.Select(r => r.Term), after.Select(r => r.Term));
        Assert.All(after, r => Assert.True(r.Done));
        // What was asked before the kill was not asked again.
        Assert.All(atKill.Zip(after).Where(r => r.First.Done), r => Assert.Equal(r.First, r.Second));
    }
}
