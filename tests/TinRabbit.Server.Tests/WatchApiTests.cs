using System.Text;
using System.Text.Json.Nodes;
using MiniExcelLibs;
using TinRabbit.Server.Shelf;

namespace TinRabbit.Server.Tests;

/// <summary>Found checks and days of a listing, over the API.</summary>
public sealed class WatchApiTests : IDisposable
{
    private const string Us = "hedgerow-fair-us";
    private readonly TestShop shop = new(demo: true);

    public void Dispose() => shop.Dispose();

    private async Task<(int Product, int Listing)> Chart()
    {
        var product = (await shop.Get("/api/shop"))["products"]!
            .AsArray()
            .Single(p => p!["name"]!.GetValue<string>() == "Garden birds wall chart")!;
        return (product["id"]!.GetValue<int>(), product["listings"]!["hedgerow-fair"]!.GetValue<int>());
    }

    private async Task Save(int listing, string title, params string[] tags)
    {
        var now = await shop.Get($"/api/listings/{listing}");
        var fields = now["copy"]!.DeepClone();
        (fields["title"], fields["tags"]) = (title, new JsonArray([.. tags.Select(t => (JsonNode)t)]));
        fields["description"] = "Forty birds of the garden.";
        await shop.Put($"/api/listings/{listing}/copy", new { fields, revision = now["revision"]!.GetValue<int>() });
    }

    private Task<JsonNode> Send(int listing) => shop.Post($"/api/listings/{listing}/send", new { marketId = Us });

    private async Task<JsonNode> Check(int listing, string[]? terms = null)
    {
        var check = await shop.Post($"/api/listings/{listing}/checks", new { marketId = Us, terms });
        return await Ended(listing, check["id"]!.GetValue<int>());
    }

    private async Task<JsonNode> Ended(int listing, int check)
    {
        for (var i = 0; i < 3000; i++)
        {
            var now = await shop.Get($"/api/listings/{listing}/checks/{check}");
            if (now["state"]!.GetValue<string>() != "running")
                return now;
            await Task.Delay(50);
        }

        throw new TimeoutException("The check did not end.");
    }

    private Task<JsonNode> Found(int listing) => shop.Get($"/api/listings/{listing}/checks?marketId={Us}");

    [Fact]
    public async Task A_term_is_seen_across_the_shop_with_who_picks_holds_and_is_found_for_it()
    {
        await shop.Pick(1, ["garden bird gift"]);
        await shop.Pick(2, ["garden bird gift"]);
        var listing = await shop.ListingOf(1, "hedgerow-fair");
        await Save(listing, "Garden bird gift of cedar", "garden bird gift");
        var all = await shop.Get($"/api/markets/{Us}/ownterms");
        var term = all["terms"]!.AsArray().Single(t => t!["key"]!.GetValue<string>() == "garden bird gift")!;
        Assert.Equal((2, 1, 0), (Int(term, "picked"), Int(term, "held"), Int(term, "checked")));
        // Terms of several listings come first.
        var picked = all["terms"]!.AsArray().Select(t => Int(t!, "picked")).ToList();
        Assert.Equal(picked.OrderDescending(), picked);

        await shop.Drop(Us, listing, "found.csv", "term,rank\ngarden bird gift,3\n");
        term = (await shop.Get($"/api/markets/{Us}/ownterms"))["terms"]!
            .AsArray()
            .Single(t => t!["key"]!.GetValue<string>() == "garden bird gift")!;
        Assert.Equal((1, 1, 3), (Int(term, "checked"), Int(term, "found"), Int(term, "bestRank")));
        // A later check for another term leaves what is known of this one.
        await shop.Drop(Us, listing, "found.csv", "term,rank\nbird lover gift,9\n");
        term = (await shop.Get($"/api/markets/{Us}/ownterms"))["terms"]!
            .AsArray()
            .Single(t => t!["key"]!.GetValue<string>() == "garden bird gift")!;
        Assert.Equal((1, 3), (Int(term, "checked"), Int(term, "bestRank")));
        var uses = (await shop.Get($"/api/markets/{Us}/ownterms/listings?term=Garden+bird+gift"))["listings"]!.AsArray();
        Assert.Equal([1, 2], uses.Select(u => Int(u!, "productId")));
        Assert.Equal((3, "whole"), (Int(uses[0]!, "rank"), uses[0]!["holds"]!.GetValue<string>()));
        Assert.Contains("Title", uses[0]!["fields"]!.AsArray().Select(f => f!.GetValue<string>()));
        Assert.Equal("missing", uses[1]!["holds"]!.GetValue<string>());

        static int Int(JsonNode node, string name) => node[name]!.GetValue<int>();
    }

    private static JsonNode Term(JsonNode found, string text) =>
        found["terms"]!.AsArray().Single(t => t!["text"]!.GetValue<string>() == text)!;

    private async Task<JsonNode> Upload(string path, string text, int status = 200)
    {
        using var response = await shop.Client.PostAsync(
            path,
            new ByteArrayContent(Encoding.UTF8.GetBytes(text)) { Headers = { { "Content-Type", "application/octet-stream" } } }
        );
        var answer = await response.Content.ReadAsStringAsync();
        Assert.True(status == (int)response.StatusCode, answer);
        return JsonNode.Parse(answer)!;
    }

    private Task<JsonNode> Paste(int listing, string text, int status = 200) =>
        Upload($"/api/listings/{listing}/checks/import?marketId={Us}", text, status);

    [Fact]
    public async Task A_check_says_why_a_term_does_not_find_the_listing_and_what_flipped_once_the_index_knows_the_new_text()
    {
        var (_, listing) = await Chart();
        await Check(listing, ["bird print", "garden birds posters", "wall chart"]);
        var before = await Found(listing);
        Assert.False(Term(before, "bird print")["found"]!.GetValue<bool>());
        Assert.Equal("wordMissing", Term(before, "garden birds posters")["why"]!.GetValue<string>());
        Assert.Equal("posters", Term(before, "garden birds posters")["because"]![0]!.GetValue<string>());
        Assert.True(Term(before, "wall chart")["found"]!.GetValue<bool>());
        Assert.InRange(Term(before, "wall chart")["page"]!.GetValue<int>(), 1, 40);

        // A form that this platform does not fold is named; the text being written may hold a term already.
        await Save(listing, "Bird print, poster, garden birds wall chart", "bird print", "bird chart");
        var drafted = Term(await Found(listing), "bird print");
        Assert.True(drafted["isInDraft"]!.GetValue<bool>());
        await Send(listing);
        await Check(listing, ["bird print", "garden birds posters"]);
        var waiting = await Found(listing);
        Assert.Equal("indexDelay", Term(waiting, "bird print")["why"]!.GetValue<string>());
        Assert.Equal(
            "poster",
            Term(waiting, "garden birds posters")["near"]!.AsArray().Select(n => n!["has"]!.GetValue<string>()).SingleOrDefault()
                ?? "poster"
        );
        Assert.NotNull((await shop.Get($"/api/listings/{listing}/watch?marketId={Us}"))["indexUpdatesAt"]);

        await shop.Post("/api/clock", new { days = 1 });
        var after = await Found(listing);
        Assert.Equal("appeared", Term(after, "bird print")["flip"]!.GetValue<string>());
        Assert.Null(Term(after, "bird print")["why"]);
        Assert.Equal("poster", Term(after, "garden birds posters")["near"]![0]!["has"]!.GetValue<string>());
        Assert.Null((await shop.Get($"/api/listings/{listing}/watch?marketId={Us}"))["indexUpdatesAt"]);
        Assert.DoesNotContain(after["terms"]!.AsArray(), t => t!["isUnexpected"]!.GetValue<bool>());
    }

    [Fact]
    public async Task The_clock_makes_each_day_with_its_check_and_its_figures_and_survives_a_restart()
    {
        var (_, listing) = await Chart();
        var before = await shop.Get($"/api/listings/{listing}/history?marketId={Us}");
        var now = (await shop.Post("/api/clock", new { days = 3 }))["now"]!.GetValue<DateTime>();
        var after = await shop.Get($"/api/listings/{listing}/history?marketId={Us}");
        Assert.Equal(before["days"]!.GetValue<int>() + 3, after["days"]!.GetValue<int>());
        var views = after["views"]!.AsArray().Select(v => v?.GetValue<long>()).ToList();
        Assert.All(views.SkipLast(1), v => Assert.NotNull(v));
        Assert.Null(views[^1]);
        Assert.All(after["terms"]!.AsArray(), t => Assert.All(t!["ranks"]!.AsArray().TakeLast(3), r => Assert.NotNull(r)));

        shop.Restart();
        var again = await shop.Get($"/api/listings/{listing}/watch?marketId={Us}");
        Assert.InRange(again["now"]!.GetValue<DateTime>() - now, TimeSpan.FromSeconds(-1), TimeSpan.FromMinutes(2));
        Assert.Equal(
            after["views"]!.ToJsonString(),
            (await shop.Get($"/api/listings/{listing}/history?marketId={Us}"))["views"]!.ToJsonString()
        );
        await shop.Post("/api/clock", new { days = 8 }, 400);
    }

    [Fact]
    public async Task A_listing_that_the_market_does_not_know_can_only_be_checked_by_hand()
    {
        var product = await shop.AddProduct("Sparrow terrace");
        var listing = await shop.ListingOf(product, "hedgerow-fair");
        var refused = await shop.Post($"/api/listings/{listing}/checks", new { marketId = Us, terms = new[] { "bird house" } }, 400);
        Assert.Contains("Send the listing first", refused.ToJsonString());
        var added = await Paste(listing, "bird house\t12\nnest box\tno\nwren house\tyes");
        Assert.Equal("Added a check of 3 terms", added["what"]!.GetValue<string>());
        var found = await Found(listing);
        Assert.Equal(12, Term(found, "bird house")["rank"]!.GetValue<int>());
        Assert.Equal((true, null), (Term(found, "wren house")["found"]!.GetValue<bool>(), Term(found, "wren house")["rank"]));
        Assert.Equal("wordMissing", Term(found, "nest box")["why"]!.GetValue<string>());
        await shop.Post($"/api/changes/undo?sure=true&change={added["id"]}&product={product}", new { });
        Assert.All((await Found(listing))["terms"]!.AsArray(), t => Assert.Null(t!["found"]));
    }

    [Theory]
    [InlineData("bird house\tsomewhere", "Row 1: “somewhere” isn’t a rank")]
    [InlineData("bird house\t12\nnest box\tmany", "Row 2: “many” isn’t a rank")]
    [InlineData("term,found,rank\nbird house,no,4", "Row 2: “bird house” has a rank, but says it was not found")]
    [InlineData("term,rank,date\nbird house,4,soon", "Row 2: “soon” isn’t a date")]
    [InlineData("term,rank,date\nbird house,4,03/04/2026", "Row 2: “03/04/2026” can begin with the day or with the month")]
    [InlineData("term,rank,date\nbird house,4,2999-01-01", "Row 2: 2999-01-01 has not come yet")]
    [InlineData("term,rank,date\nbird house,4,0001-01-01", "Row 2: 0001-01-01 is more than 3,660 days ago")]
    [InlineData("bird house\t0", "Row 1: “0” isn’t a rank")]
    [InlineData("term,rank", "There is no term in it")]
    public async Task A_row_that_cannot_be_is_named_and_nothing_is_added(string text, string message)
    {
        var (_, listing) = await Chart();
        var before = (await Found(listing)).ToJsonString();
        Assert.Contains(
            message,
            (await Paste(listing, text, 400))["errors"]!.ToJsonString(
                new() { Encoder = System.Text.Encodings.Web.JavaScriptEncoder.UnsafeRelaxedJsonEscaping }
            )
        );
        Assert.Equal(before, (await Found(listing)).ToJsonString());
    }

    [Fact]
    public async Task A_results_page_says_of_a_listing_that_it_is_not_found_only_where_it_has_every_result()
    {
        var (_, listing) = await Chart();
        var page = new MadePages(11).Make("cards", 0);
        var own = page.Items.First(i => !i.IsAd && i != page.Items[0]);
        await Save(listing, own.Title);
        await Drop(page.Html);
        var term = Term(await Found(listing), page.Query);
        var before = page.Items.TakeWhile(i => i != own).ToList();
        Assert.True(term["found"]!.GetValue<bool>());
        // Ads have a place, but no rank.
        Assert.Equal(before.Count(i => !i.IsAd) + 1, term["rank"]!.GetValue<int>());
        Assert.Equal(page.Total, term["results"]!.GetValue<long>());

        await Save(listing, "Something else for the wall");
        var checks = (await Found(listing))["checks"]!.AsArray().Count;
        await Drop(page.Html);
        Assert.Equal(checks, (await Found(listing))["checks"]!.AsArray().Count);
        var total = page.Total.ToString("#,0", System.Globalization.CultureInfo.InvariantCulture);
        await Drop(page.Html.Replace($"of {total} results", $"of {page.Items.Count} results", StringComparison.Ordinal));
        Assert.False(Term(await Found(listing), page.Query)["found"]!.GetValue<bool>());

        async Task Drop(string html)
        {
            var files = await Bindery.Of(shop).Upload("page.html", Encoding.UTF8.GetBytes(html));
            await shop.Post("/api/drops/add", new { files, marketId = Us });
        }
    }

    [Fact]
    public async Task A_wrong_fold_of_the_profile_is_named_and_the_changed_profile_agrees_with_the_market()
    {
        // The search folds plurals; the profile says that it does not.
        var product = await shop.AddProduct("Sparrow terrace");
        var listing = await shop.ListingOf(product, "hedgerow-fair");
        await Save(listing, "Cedar bird house with nest box", "wren feeder");
        await Paste(
            listing,
            "bird houses\t3\nnest boxes\t9\ncedar bird houses\t4\nwren feeders\t20\nbird house\t2\nnest box\t7\nbat roost\tno\nowl hides\tno"
        );
        var rules = await shop.Get($"/api/listings/{listing}/rules?marketId={Us}");
        Assert.Equal(
            ["bird houses", "nest boxes", "cedar bird houses", "wren feeders"],
            rules["surprises"]!.AsArray().Select(s => s!["text"]!.GetValue<string>())
        );
        var change = rules["change"]!;
        Assert.Equal("Hedgerow Fair seems to treat singular and plural as the same word", change["says"]!.GetValue<string>());
        Assert.Equal(0, change["remaining"]!.GetValue<int>());
        Assert.Null(rules["rho"]);

        await shop.Put("/api/platforms/hedgerow-fair", new { profile = change["profile"], revision = change["revision"] });
        var after = await shop.Get($"/api/listings/{listing}/rules?marketId={Us}");
        Assert.Empty(after["surprises"]!.AsArray());
        Assert.Null(after["change"]);
        Assert.DoesNotContain((await Found(listing))["terms"]!.AsArray(), t => t!["isUnexpected"]!.GetValue<bool>());
    }

    [Fact]
    public async Task Grip_and_rank_are_compared_from_twenty_terms_on_and_weights_are_only_offered()
    {
        var nestBox = await shop.ListingOf(1, "hedgerow-fair");
        var few = await shop.Get($"/api/listings/{nestBox}/rules?marketId={Us}");
        Assert.InRange(few["count"]!.GetValue<int>(), 8, 19);
        Assert.Null(few["rho"]);
        // Exact phrases of the title first, then words that are apart: a market that ranks as grip does.
        string[] terms =
        [
            "cedar wren nest box",
            "wren nest box",
            "nest box",
            "small bird house",
            "bird house",
            "bird house for garden",
            "wren houses",
            "bird lover gift",
            "cedar wren",
            "wren nest",
            "lover gift",
            "small bird",
            "house for garden",
            "wren bird house",
            "cedar bird house",
            "garden bird house",
            "cedar gift",
            "wren gift",
            "garden gift",
            "small cedar box",
            "small wren box",
            "bird gift",
            "garden box",
            "small nest box",
        ];
        await Paste(nestBox, string.Join('\n', terms.Select((t, i) => $"{t}\t{i + 1}")));
        var more = await shop.Get($"/api/listings/{nestBox}/rules?marketId={Us}");
        Assert.InRange(more["count"]!.GetValue<int>(), 20, 60);
        Assert.InRange(more["rho"]!.GetValue<double>(), more["low"]!.GetValue<double>(), more["high"]!.GetValue<double>());
        Assert.True(more["high"]!.GetValue<double>() > 0);
        var before = (await shop.Get("/api/platforms")).ToJsonString();
        var weights = await shop.Get($"/api/listings/{nestBox}/rules/weights?marketId={Us}");
        Assert.True(weights["searches"]!.GetValue<int>() >= 8);
        Assert.InRange(weights["tauNow"]!.GetValue<double>(), -1, 1);
        Assert.Equal(weights["change"] is null, weights["weights"]!.AsArray().Count == 0);
        Assert.Equal(before, (await shop.Get("/api/platforms")).ToJsonString());
    }

    [Fact]
    public async Task A_check_is_stopped_and_resumed_where_it_was()
    {
        var (_, listing) = await Chart();
        var terms = Enumerable.Range(0, 1500).Select(i => $"bird poster {i}").ToArray();
        var check = await shop.Post($"/api/listings/{listing}/checks", new { marketId = Us, terms });
        var id = check["id"]!.GetValue<int>();
        Assert.Equal(1500, check["all"]!.GetValue<int>());
        var stopped = await shop.Post($"/api/listings/{listing}/checks/{id}/stop", new { });
        Assert.Equal("stopped", stopped["state"]!.GetValue<string>());
        await Task.Delay(300);
        var still = await shop.Get($"/api/listings/{listing}/checks/{id}");
        Assert.Equal("stopped", still["state"]!.GetValue<string>());
        Assert.InRange(still["done"]!.GetValue<int>(), 0, 1499);
        await shop.Post($"/api/listings/{listing}/checks/{id}/resume", new { });
        var ended = await Ended(listing, id);
        Assert.Equal(("finished", 1500), (ended["state"]!.GetValue<string>(), ended["done"]!.GetValue<int>()));
        var tooMany = await shop.Post(
            $"/api/listings/{listing}/checks",
            new { marketId = Us, terms = Enumerable.Range(0, 900).Select(i => $"other {i}") },
            400
        );
        Assert.Contains("the limit is 2,000", tooMany.ToJsonString());
    }

    [Fact]
    public async Task Terms_are_no_longer_checked_and_come_back_and_so_does_a_check()
    {
        var (product, listing) = await Chart();
        await Check(listing, ["bird tea towel"]);
        var term = Term(await Found(listing), "bird tea towel");
        var change = await shop.Post($"/api/listings/{listing}/checks/unfollow", new { terms = new[] { term["id"]!.GetValue<int>() } });
        Assert.Equal("Stopped checking “bird tea towel”", change["what"]!.GetValue<string>());
        Assert.DoesNotContain((await Found(listing))["terms"]!.AsArray(), t => t!["text"]!.GetValue<string>() == "bird tea towel");
        await shop.Post($"/api/changes/undo?sure=true&product={product}", new { });
        Assert.NotNull(Term(await Found(listing), "bird tea towel")["found"]);

        var last = (await Found(listing))["checks"]![0]!["id"]!.GetValue<int>();
        using var deleted = await shop.Client.DeleteAsync($"/api/listings/{listing}/checks/{last}");
        Assert.True(deleted.IsSuccessStatusCode);
        Assert.Null(Term(await Found(listing), "bird tea towel")["found"]);
        await shop.Post($"/api/changes/undo?sure=true&product={product}", new { });
        Assert.NotNull(Term(await Found(listing), "bird tea towel")["found"]);
    }

    [Fact]
    public async Task Figures_come_from_a_file_replace_those_of_their_days_and_one_undo_takes_them_back()
    {
        var (product, listing) = await Chart();
        Task<JsonNode> Drop(string text, int status = 200) => shop.Drop(Us, listing, "june.csv", text, "figures", status: status);
        var before = await shop.Get($"/api/listings/{listing}/history?marketId={Us}");
        var from = before["from"]!.GetValue<string>();
        var added = await Drop($"date,impressions,orders\n{from},7000,3\n2026-01-02,5,\n");
        Assert.Equal("Imported daily figures of 2 days", added["what"]!.GetValue<string>());
        var after = await shop.Get($"/api/listings/{listing}/history?marketId={Us}");
        Assert.Equal("2026-01-02", after["from"]!.GetValue<string>());
        Assert.Equal(5, after["views"]![0]!.GetValue<long>());
        Assert.Null(after["sales"]![0]);
        Assert.Null(after["views"]![1]);
        Assert.Contains(7000, after["views"]!.AsArray().Select(v => v?.GetValue<long>() ?? 0));
        // What the file does not say stays as it was known.
        Assert.Equal(before["clicks"]!.AsArray().Sum(c => c?.GetValue<long>()), after["clicks"]!.AsArray().Sum(c => c?.GetValue<long>()));
        Assert.Contains("june.csv", after["sources"]!.AsArray().Select(s => s!.GetValue<string>()));
        Assert.Contains(
            $"{from},7000,{before["clicks"]![0]},3,june.csv + Sample data",
            await shop.Client.GetStringAsync($"/api/listings/{listing}/figures/export.csv?marketId={Us}")
        );
        await shop.Post($"/api/changes/undo?sure=true&product={product}", new { });
        Assert.Equal(before.ToJsonString(), (await shop.Get($"/api/listings/{listing}/history?marketId={Us}")).ToJsonString());
        Assert.Contains("Row 3: 2026-01-02 is there twice", (await Drop("date,views\n2026-01-02,5\n2026-01-02,6", 400)).ToJsonString());
        Assert.Contains("Row 2: ", (await Drop("date,views\n2026-01-02,-5", 400)).ToJsonString());
        // Visits are no clicks: what they are is asked.
        Assert.Contains("What do the columns count?", (await Drop("date,visits\n2026-01-02,5", 400)).ToJsonString());
    }

    [Fact]
    public async Task Figures_come_from_a_workbook_whose_days_are_dates()
    {
        var (_, listing) = await Chart();
        var file = Path.Combine(shop.Folder, "figures.xlsx");
        MiniExcel.SaveAs(
            file,
            new[]
            {
                new Dictionary<string, object> { ["Date"] = new DateTime(2026, 1, 30), ["Views"] = 40 },
                new Dictionary<string, object> { ["Date"] = new DateTime(2026, 1, 31), ["Views"] = 50 },
            }
        );
        await shop.Drop(Us, listing, "figures.xlsx", await File.ReadAllBytesAsync(file));
        var history = await shop.Get($"/api/listings/{listing}/history?marketId={Us}");
        Assert.Equal("2026-01-30", history["from"]!.GetValue<string>());
        Assert.Equal([40, 50], history["views"]!.AsArray().Take(2).Select(v => v!.GetValue<long>()));
    }

    [Fact]
    public async Task The_shop_shows_its_largest_movers_first_and_how_a_listing_is_watched_is_saved()
    {
        var (_, listing) = await Chart();
        var movers = (await shop.Get("/api/movers?days=14"))["listings"]!.AsArray();
        Assert.Equal(7, movers.Count);
        long Moved(JsonNode m) => Math.Abs(m["views"]!["now"]!.GetValue<long>() - m["views"]!["before"]!.GetValue<long>());
        Assert.Equal(movers.Select(m => Moved(m!)).OrderDescending(), movers.Select(m => Moved(m!)));
        Assert.All(movers, m => Assert.Equal(28, m!["daily"]!.AsArray().Count));
        await shop.Put(
            $"/api/listings/{listing}/watch",
            new
            {
                marketId = Us,
                checksDaily = false,
                pageSize = 20,
            }
        );
        var watch = await shop.Get($"/api/listings/{listing}/watch?marketId={Us}");
        Assert.Equal((false, 20), (watch["checksDaily"]!.GetValue<bool>(), watch["pageSize"]!.GetValue<int>()));
        var checks = (await Found(listing))["checks"]![0]!["id"]!.GetValue<int>();
        await shop.Post("/api/clock", new { days = 1 });
        Assert.Equal(checks, (await Found(listing))["checks"]![0]!["id"]!.GetValue<int>());
        await shop.Put(
            $"/api/listings/{listing}/watch",
            new
            {
                marketId = Us,
                checksDaily = false,
                pageSize = 0,
            },
            400
        );
        var csv = await shop.Client.GetStringAsync($"/api/listings/{listing}/checks/export.csv?marketId={Us}");
        Assert.StartsWith("\uFEFFdate,term,found,rank,results,source", csv);
    }
}
