using System.Globalization;
using System.Net.Http.Json;
using System.Text;
using System.Text.Json.Nodes;
using Microsoft.AspNetCore.Hosting;
using Microsoft.AspNetCore.Mvc.Testing;
using Microsoft.AspNetCore.TestHost;
using Microsoft.Data.Sqlite;
using Microsoft.Extensions.DependencyInjection;
using OpenQA.Selenium;

namespace TinRabbit.Browser.Tests;

/// <summary>A bookbinder in Portugal keeps a shop of their own for a month, with nothing but what they can see and save: they meet nothing simulated.</summary>
public sealed class RealMonthTests : IDisposable
{
    private const string Market = "paper-lane-pt";

    // What only the simulated markets and the demo say, and controls of a simulated time.
    private static readonly string[] Simulated = ["simulat", "sample data", "plover", "re-index", "one week later", "one day later"];

    private readonly string _folder = Directory.CreateTempSubdirectory("tin-rabbit-month-").FullName;
    private readonly Clock _clock = new();
    private readonly WebApplicationFactory<Program> _shop;
    private readonly HttpClient _http;

    public RealMonthTests()
    {
        _shop = new WebApplicationFactory<Program>().WithWebHostBuilder(b =>
        {
            b.UseSetting("data", _folder);
            b.UseSetting("demo", "false");
            b.ConfigureTestServices(services => services.AddSingleton<TimeProvider>(_clock));
        });
        _shop.UseKestrel(0);
        _shop.StartServer();
        _http = new() { BaseAddress = _shop.ClientOptions.BaseAddress };
    }

    public void Dispose()
    {
        _http.Dispose();
        _shop.Dispose();
        SqliteConnection.ClearAllPools();
        Directory.Delete(_folder, true);
    }

    // The month ends today: the browser's own clock is later than the shop's until then.
    private sealed class Clock : TimeProvider
    {
        private TimeSpan _behind = TimeSpan.FromDays(30);

        public void Pass(int days) => _behind -= TimeSpan.FromDays(days);

        public override DateTimeOffset GetUtcNow() => System.GetUtcNow() - _behind;
    }

    private string Day(int ago) =>
        DateOnly.FromDateTime(_clock.GetUtcNow().UtcDateTime).AddDays(-ago).ToString("yyyy-MM-dd", CultureInfo.InvariantCulture);

    [Fact]
    public async Task A_month_in_a_real_shop_meets_nothing_simulated()
    {
        using var browser = new Browser(_http.BaseAddress!.ToString().TrimEnd('/'));
        var (product, listing) = await Begin();
        var desk = $"/{product}/{Market}";

        // The listing was live before this program was there.
        browser.Go($"{desk}/write?side=send");
        browser.WaitsForChecks();
        browser.Sees("[data-testid=send]", "These texts are live already, since");
        browser.Run(
            "const i = document.querySelector('input[name=since]'); Object.getOwnPropertyDescriptor(HTMLInputElement.prototype, 'value').set.call(i, arguments[0]); i.dispatchEvent(new Event('input', { bubbles: true }))",
            Day(20)
        );
        browser.ClickText("Mark as live");
        browser.Sees("[data-testid=send]", "Published");
        await Figures(listing, from: 20, to: 1, views: 10);
        var days = new HashSet<string>();
        for (var week = 1; week <= 4; week++)
        {
            _clock.Pass(7);
            // Once a week the seller looks for themselves, and saves the statistics that their marketplace shows.
            await Figures(listing, from: 7, to: 1, views: week < 3 ? 10 : 30);
            browser.Go($"{desk}/watch");
            browser.Sees("[aria-label=Views]", "Found");
            browser.Chord(Keys.Shift, "v");
            browser.Labelled("Terms and what you found").SendKeys($"notebook cover, {20 - week}\nleather journal, no\nstone lithograph, 4");
            browser.Chord(Keys.Control, Keys.Enter);
            browser.Waits(
                "the check",
                () => browser.Texts("[role=row][data-id]").Any(r => r.Contains("notebook cover", StringComparison.Ordinal))
            );
            // A word of the text is not in it: it should not have been found.
            browser.Click("[role=row][data-id]");
            // Keys that move a simulated time move nothing.
            var now = (await Get($"/api/listings/{listing}/watch?marketId={Market}"))["now"]!.GetValue<DateTime>();
            browser.Chord(Keys.Shift, "w");
            browser.Chord(Keys.Shift, "d");
            Assert.InRange(
                (await Get($"/api/listings/{listing}/watch?marketId={Market}"))["now"]!.GetValue<DateTime>() - now,
                TimeSpan.Zero,
                TimeSpan.FromMinutes(5)
            );
            days.Add((await Get($"/api/listings/{listing}/checks?marketId={Market}"))["checks"]![0]!["at"]!.GetValue<string>()[..10]);
            if (week == 2)
            {
                browser.Go($"{desk}/write");
                browser.Write("Title", "Leather notebook cover, leather journal for A5 notebooks");
                browser.Sees("[data-testid=save-state]", "Saved");
                browser.Go($"{desk}/write?side=send");
                browser.WaitsForChecks();
                browser.ClickText("Mark as published");
                browser.Sees("[data-testid=toast]", "Marked as published");
            }

            LookAround(browser, desk);
        }

        Assert.Equal(4, days.Count);
        var found = (await Get($"/api/listings/{listing}/checks?marketId={Market}"))["terms"]!.AsArray();
        JsonNode Term(string text) => found.Single(t => t!["text"]!.GetValue<string>() == text)!;
        Assert.True(Term("notebook cover")["predicted"]!.GetValue<bool>());
        Assert.True(Term("stone lithograph")["isUnexpected"]!.GetValue<bool>());
        browser.Go($"{desk}/watch?view=rules");
        browser.Sees("[data-testid=rules-of]", $"wrong for {found.Count(t => t!["isUnexpected"]!.GetValue<bool>())} of 3 terms");

        // The change is compared with the days before it: the first text is no change.
        browser.Go($"{desk}/watch?view=notes");
        browser.Sees("[data-testid=notes-detail]", "Views rose");
        Assert.DoesNotContain("First published", browser.Text("body"), StringComparison.Ordinal);
        Assert.Empty(browser.Complaints());
        Assert.Equal(["f.csv"], Stored("SELECT DISTINCT Source FROM Figures"));
        Assert.Equal(["Pasted"], Stored("SELECT DISTINCT Source FROM Checks"));
        Assert.Equal(["my notes"], Stored("SELECT DISTINCT Source FROM Readings"));
    }

    // Every screen, as it is read; no first screen offers samples any more.
    private static void LookAround(Browser browser, string desk)
    {
        foreach (
            var path in (string[])
                [
                    $"{desk}/dig",
                    $"{desk}/dig?term=notebook%20cover",
                    $"{desk}/pick",
                    $"{desk}/write",
                    $"{desk}/weigh",
                    $"{desk}/weigh?view=moves",
                    $"{desk}/weigh?view=top",
                    $"{desk}/weigh?view=rivals",
                    $"{desk}/weigh?view=buyers",
                    $"{desk}/weigh?view=places",
                    $"{desk}/watch",
                    $"{desk}/watch?view=days",
                    $"{desk}/watch?view=notes",
                    $"{desk}/watch?view=rules",
                    "/listings",
                    "/watch",
                    "/watch?view=movers",
                    "/watch?view=worked",
                    "/pages",
                    "/pages?view=leads",
                    "/platforms",
                    "/settings",
                ]
        )
        {
            browser.Go(path);
            var before = "";
            browser.Waits(
                $"{path} whole",
                () =>
                {
                    var (last, now) = (before, browser.Text("body"));
                    before = now;
                    return now == last && now.Length > 60;
                }
            );
            var text = browser.Text("body").ToLowerInvariant();
            Assert.DoesNotContain(Simulated, s => text.Contains(s, StringComparison.Ordinal));
        }
    }

    private async Task<JsonNode> Get(string path) => JsonNode.Parse(await _http.GetStringAsync(path))!;

    private async Task<JsonNode> Send(HttpMethod method, string path, object body)
    {
        using var request = new HttpRequestMessage(method, path) { Content = JsonContent.Create(body) };
        using var response = await _http.SendAsync(request);
        var text = await response.Content.ReadAsStringAsync();
        Assert.True(response.IsSuccessStatusCode, text);
        return text.Length > 0 ? JsonNode.Parse(text)! : new JsonObject();
    }

    // A place of their own, a product with its text, terms and picks.
    private async Task<(int Product, int Listing)> Begin()
    {
        await Send(
            HttpMethod.Put,
            "/api/shop",
            new
            {
                name = "Bindery",
                currency = "EUR",
                countries = new[] { "pt" },
                language = "pt",
            }
        );
        var profile = (await Get("/api/platforms"))["platforms"]!.AsArray().Single(p => p!["id"]!.GetValue<string>() == "hedgerow-fair")![
            "profile"
        ]!;
        (profile["id"], profile["name"]) = ("paper-lane", "Paper Lane");
        await Send(HttpMethod.Post, "/api/platforms", new { profile, like = "hedgerow-fair" });
        var product = (
            await Send(
                HttpMethod.Post,
                "/api/products",
                new
                {
                    name = "Leather notebook cover",
                    facts = new { what = "notebook cover" },
                    pictures = (object?)null,
                    platforms = new[] { "paper-lane" },
                }
            )
        )["id"]!.GetValue<int>();
        await Send(
            HttpMethod.Post,
            $"/api/markets/{Market}/paste",
            new { text = "notebook cover\t900\nleather journal\t400", source = "my notes" }
        );
        await Send(
            HttpMethod.Post,
            $"/api/products/{product}/picks",
            new
            {
                texts = new[] { "notebook cover", "leather journal" },
                source = (string?)null,
                fit = (string?)null,
                home = (string?)null,
                note = (string?)null,
            }
        );
        var listing = (await Get("/api/shop"))["products"]![0]!["listings"]!["paper-lane"]!.GetValue<int>();
        await Send(
            HttpMethod.Put,
            $"/api/listings/{listing}/copy",
            new
            {
                fields = new
                {
                    title = "Leather notebook cover",
                    description = "For A5 notebooks.",
                    tags = new[] { "notebook cover" },
                    category = new[] { "Stationery" },
                },
                revision = 0,
                keep = (string?)null,
            }
        );
        return (product, listing);
    }

    private async Task Figures(int listing, int from, int to, int views)
    {
        var table =
            "date,views,clicks\n" + string.Concat(Enumerable.Range(to, from - to + 1).Select(d => $"{Day(d)},{views + d % 3},{d % 2}\n"));
        using var uploaded = await _http.PostAsync("/api/drops?name=f.csv", new ByteArrayContent(Encoding.UTF8.GetBytes(table)));
        var files = JsonNode.Parse(await uploaded.Content.ReadAsStringAsync())!["files"]!
            .AsArray()
            .Select(f => f!["id"]!.GetValue<string>());
        using var response = await _http.PostAsJsonAsync(
            "/api/drops/add",
            new
            {
                files,
                marketId = Market,
                listingId = listing,
            }
        );
        Assert.True(response.IsSuccessStatusCode, await response.Content.ReadAsStringAsync());
    }

    private List<string> Stored(string sql)
    {
        using var database = new SqliteConnection($"Data Source={Path.Combine(_folder, "tinrabbit.db")};Mode=ReadOnly");
        database.Open();
        using var command = database.CreateCommand();
        command.CommandText = sql;
        using var reader = command.ExecuteReader();
        var found = new List<string>();
        while (reader.Read())
            found.Add(reader.GetString(0));
        return found;
    }
}
