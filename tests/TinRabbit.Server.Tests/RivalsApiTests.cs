using System.Net;
using System.Text;
using System.Text.Json.Nodes;

namespace TinRabbit.Server.Tests;

/// <summary>Rivals in full: chosen, pasted, imported, ranked, looked up again, passed; and the reviews of both sides.</summary>
public sealed class RivalsApiTests : IDisposable
{
    private readonly TestShop shop = new(demo: true);

    public void Dispose() => shop.Dispose();

    private const string Market = "hedgerow-fair-us";

    private async Task<string> Listing() => $"/api/listings/{await shop.ListingOf(2, "hedgerow-fair")}";

    private static object Draft => new { marketId = Market, fields = (object?)null };

    private static JsonArray Array(JsonNode node, string name) => node[name]!.AsArray();

    private static string Text(JsonNode? node, string name) => node![name]!.GetValue<string>();

    private static double Number(JsonNode? node, string name) => node![name]!.GetValue<double>();

    private async Task<JsonNode> Upload(string path, string text, int status = 200)
    {
        using var body = new ByteArrayContent(Encoding.UTF8.GetBytes(text));
        body.Headers.ContentType = new("application/octet-stream");
        using var response = await shop.Client.PostAsync(path, body);
        var answer = await response.Content.ReadAsStringAsync();
        Assert.True(status == (int)response.StatusCode, $"{(int)response.StatusCode}: {answer}");
        return JsonNode.Parse(answer)!;
    }

    private async Task<List<int>> Choose(string listing, int count)
    {
        var found = await shop.Get($"{listing}/rivals/found?marketId={Market}");
        await shop.Post(
            $"{listing}/rivals",
            new { marketId = Market, ids = Array(found, "results").Take(count).Select(r => Text(r, "id")).ToArray() }
        );
        return [.. Array(await shop.Post($"{listing}/rivals/compare", Draft), "rivals").Select(r => r!["id"]!.GetValue<int>())];
    }

    [Fact]
    public async Task A_rival_and_a_result_open_with_their_text_and_the_terms_that_the_market_knows()
    {
        var listing = await Listing();
        await shop.Dig(2, Market, "bird feeder");
        var rival = (await Choose(listing, 1))[0];
        var read = await shop.Get($"{listing}/rivals/{rival}/text?marketId={Market}");
        Assert.Contains("Title", Array(read, "texts").Select(t => Text(t, "label")));
        var terms = Array(read, "terms");
        Assert.NotEmpty(terms);
        var words = string.Join(' ', Array(read, "texts").Select(t => Text(t, "text"))).ToLowerInvariant();
        foreach (var term in terms)
        {
            Assert.NotEmpty(Array(term!, "fields"));
            // A term that its text holds has no word that stands nowhere in it, in any form.
            Assert.All(Text(term, "key").Split(' '), w => Assert.Contains(w[..Math.Min(3, w.Length)], words));
        }

        var volumes = terms.Select(t => t!["numbers"]!["volume"]?.GetValue<double>() ?? -1).ToList();
        Assert.Equal(volumes.OrderDescending(), volumes);
        // The first result of the same search is the rival that was chosen.
        var found = await shop.Get($"{listing}/rivals/found/text?marketId={Market}&term=window+bird+feeder&rank=1");
        Assert.Equal(Text(read, "title"), Text(found, "title"));
        Assert.Equal(
            HttpStatusCode.NotFound,
            (await shop.Client.GetAsync($"{listing}/rivals/found/text?marketId={Market}&term=window+bird+feeder&rank=4000")).StatusCode
        );
    }

    [Theory]
    [InlineData("title")]
    [InlineData("tags")]
    public async Task Words_of_the_first_listings_have_their_mean_rank_and_price(string text)
    {
        var top = await shop.Post(
            $"{await Listing()}/top",
            new
            {
                marketId = Market,
                fields = (object?)null,
                text,
            }
        );
        var words = Array(top, "words");
        Assert.True(words.Count > 5, $"{words.Count} words");
        Assert.All(
            words,
            w =>
            {
                Assert.InRange(Number(w, "rank"), 1, Number(top, "looked"));
                Assert.True(w!["price"] is null || Number(w, "price") > 0);
                Assert.Equal(Number(w, "held") / Number(top, "texts"), Number(w, "share"), 9);
            }
        );
    }

    [Fact]
    public async Task Reviews_of_one_side_alone_show_what_most_of_them_say()
    {
        var id = await shop.ListingOf(3, "hedgerow-fair");
        var listing = $"/api/listings/{id}";
        var rows = string.Concat(
            Enumerable
                .Range(0, 6)
                .Select(i => $"5,\"Easy to clean. Order {i}\"\n")
                .Concat(Enumerable.Range(0, 4).Select(i => $"1,\"The roof leaks. Order {i}\"\n"))
        );
        await shop.Drop(Market, id, "reviews.csv", "stars,review\n" + rows);
        var phrases = await shop.Get($"{listing}/reviews/phrases?marketId={Market}");
        Assert.Equal((10.0, 0.0), (Number(phrases, "mine"), Number(phrases, "theirs")));
        var easy = Array(phrases, "phrases").Single(p => Text(p, "text") == "easy to clean");
        Assert.Equal(
            ("praise", 6.0, false, 0.0),
            (Text(easy, "tone"), Number(easy, "mine"), easy!["ofRivals"]!.GetValue<bool>(), Number(easy, "z"))
        );
        Assert.Equal("complaint", Text(Array(phrases, "phrases").Single(p => Text(p, "text") == "roof leaks"), "tone"));
        // Part of a longer phrase alone says nothing more.
        Assert.DoesNotContain(Array(phrases, "phrases"), p => Text(p, "text") == "leaks");
    }

    [Fact]
    public async Task Results_are_chosen_ranked_with_mine_and_one_undo_takes_them_away()
    {
        var listing = await Listing();
        var found = await shop.Get($"{listing}/rivals/found?marketId={Market}");
        Assert.Equal("window bird feeder", Text(found, "term"));
        Assert.InRange(Array(found, "results").Count, 10, 40);
        await Choose(listing, 4);
        Assert.Equal(
            4,
            Array(await shop.Get($"{listing}/rivals/found?marketId={Market}"), "results").Count(r => r!["isSaved"]!.GetValue<bool>())
        );

        var ranked = await shop.Post($"{listing}/rivals/compare", Draft);
        var rivals = Array(ranked, "rivals");
        Assert.Equal(rivals.Select(r => Number(r, "grip")).OrderDescending(), rivals.Select(r => Number(r, "grip")));
        Assert.Equal(5, Number(ranked, "rank"));
        Assert.Equal(rivals[^1]!["id"]!.GetValue<int>(), Number(ranked, "nextAbove"));
        Assert.Equal(Number(rivals[^1], "grip") - Number(ranked, "grip"), Number(ranked, "gap"), 1e-9);
        Assert.Contains("bird feeder", Array(rivals[0]!, "onlyTheirs").Select(k => k!.GetValue<string>()));
        Assert.Equal(["Title", "Tags", "Attributes"], Array(rivals[0]!, "seen").Select(k => k!.GetValue<string>()));

        // Who holds what: the same figures as the term's own weighing, and the firmest first.
        var weighed = await shop.Post($"{listing}/weigh", Draft);
        foreach (var term in Array(ranked, "terms"))
        {
            var holders = Array(term!, "holders");
            Assert.Equal(holders.Select(h => Number(h, "grip")).OrderDescending(), holders.Select(h => Number(h, "grip")));
            var mine = Array(weighed, "terms").Single(t => Text(t, "key") == Text(term, "key"))!;
            Assert.Equal(Number(mine, "grip"), holders.SingleOrDefault(h => Number(h, "rival") == 0)?["grip"]!.GetValue<double>() ?? 0);
        }

        Assert.Equal("Saved 4 rivals", Text(await shop.Post("/api/changes/undo?sure=true&product=2", new { }), "what"));
        Assert.Empty(Array(await shop.Post($"{listing}/rivals/compare", Draft), "rivals"));
    }

    [Fact]
    public async Task Moves_to_pass_bring_the_listing_past_the_rival_when_they_are_saved()
    {
        var listing = await Listing();
        var rival = (await Choose(listing, 3))[0];
        var pass = await shop.Post($"{listing}/rivals/{rival}/pass", Draft);
        Assert.True(pass["passes"]!.GetValue<bool>());
        Assert.InRange(Array(pass, "moves").Count, 1, 12);
        var weighed = await shop.Post($"{listing}/weigh", new { marketId = Market, fields = pass["fields"] });
        Assert.Equal(Number(pass, "grip"), Number(weighed, "grip"), 1e-9);
        var ranked = await shop.Post($"{listing}/rivals/compare", new { marketId = Market, fields = pass["fields"] });
        Assert.True(Number(ranked, "grip") > Array(ranked, "rivals").Single(r => Number(r, "id") == rival)!["grip"]!.GetValue<double>());
        await shop.Post($"{listing}/rivals/99999/pass", Draft, 404);
    }

    [Fact]
    public async Task A_rival_is_pasted_and_pasted_again_shows_what_changed()
    {
        var listing = await Listing();
        object Pasted(string title, decimal price, int? rivalId) =>
            new
            {
                marketId = Market,
                shop = "Fen & Fern",
                fields = new { title, tags = new[] { "bird feeder" } },
                price,
                rating = 4.5,
                rivalId,
            };
        Assert.Equal(
            "Saved “Fen & Fern” as a rival",
            Text(await shop.Post($"{listing}/rivals/paste", Pasted("Bird feeder", 12, null)), "what")
        );
        var rival = Array(await shop.Post($"{listing}/rivals/compare", Draft), "rivals").Single()!;
        Assert.Equal(
            ("Bird feeder", "Pasted", false),
            (Text(rival, "title"), Text(rival, "source"), rival["isFromMarket"]!.GetValue<bool>())
        );
        Assert.Empty(Array(rival, "changes"));
        await shop.Post($"{listing}/rivals/paste", Pasted("Window bird feeder", 11.5m, rival["id"]!.GetValue<int>()));
        rival = Array(await shop.Post($"{listing}/rivals/compare", Draft), "rivals").Single()!;
        Assert.Equal(
            ["Price 12 11.5", "Title Bird feeder Window bird feeder"],
            Array(rival, "changes").Select(c => $"{c!["what"]} {c["before"]} {c["after"]}")
        );
        Assert.Equal(1, (await shop.Post($"{listing}/rivals/refresh", new { marketId = Market }))["byHand"]!.GetValue<int>());

        var empty = await shop.Post(
            $"{listing}/rivals/paste",
            new
            {
                marketId = Market,
                shop = "",
                fields = new { title = " " },
            },
            400
        );
        Assert.Contains("at least the title", Text(empty, "detail"));
        var wrong = await shop.Post(
            $"{listing}/rivals/paste",
            new
            {
                marketId = Market,
                shop = "",
                fields = new { title = "a" },
                rating = 7,
            },
            400
        );
        Assert.Contains("Stars go from 1 to 5", Text(wrong, "detail"));
    }

    [Fact]
    public async Task A_removed_rival_comes_back_with_its_reviews()
    {
        var listing = await Listing();
        var rivals = await Choose(listing, 2);
        await shop.Post($"{listing}/reviews/fetch", new { marketId = Market });
        var before = Number(await shop.Get($"{listing}/reviews/phrases?marketId={Market}"), "theirs");
        using (var gone = await shop.Client.DeleteAsync($"{listing}/rivals/{rivals[0]}"))
            Assert.Equal(HttpStatusCode.OK, gone.StatusCode);
        Assert.True(Number(await shop.Get($"{listing}/reviews/phrases?marketId={Market}"), "theirs") < before);
        await shop.Post("/api/changes/undo?sure=true&product=2", new { });
        Assert.Equal(before, Number(await shop.Get($"{listing}/reviews/phrases?marketId={Market}"), "theirs"));
        Assert.Equal(2, Array(await shop.Post($"{listing}/rivals/compare", Draft), "rivals").Count);
    }

    [Fact]
    public async Task A_file_of_rivals_is_read_and_what_was_exported_is_the_same_again()
    {
        var listing = await Listing();
        var id = int.Parse(listing.Split('/')[^1], System.Globalization.CultureInfo.InvariantCulture);
        Task<JsonNode> Drop(string text, string? kind = null, int status = 200) =>
            shop.Drop(Market, id, "rivals.csv", text, kind, status: status);
        var done = await Drop(
            "shop,Title,tags,price,stars,occupancy\nFen,Window bird feeder,\"bird feeder, window feeder\",\"1,250.50\",4.5,70%\n"
        );
        Assert.Equal("Imported 1 rival", Text(done, "what"));
        var rival = Array(await shop.Post($"{listing}/rivals/compare", Draft), "rivals").Single()!;
        Assert.Equal(2, rival["fields"]!["tags"]!.AsArray().Count);
        Assert.Equal(
            (1250.5, 4.5, 0.7),
            (Number(rival["state"], "price"), Number(rival["state"], "rating"), Number(rival["state"], "occupancy"))
        );

        var exported = await shop.Client.GetStringAsync($"{listing}/rivals/export.csv?marketId={Market}");
        await Drop(exported);
        var both = Array(await shop.Post($"{listing}/rivals/compare", Draft), "rivals");
        Assert.Equal(2, both.Count);
        Assert.Equal(both[0]!["fields"]!.ToJsonString(), both[1]!["fields"]!.ToJsonString());
        Assert.Equal(Number(both[0]!["state"], "price"), Number(both[1]!["state"], "price"));

        async Task Refused(string text, string why) => Assert.Contains(why, Text(await Drop(text, "rivals", 400), "detail"));
        await Refused("shop,title,price\nFen,,12\n", "Row 2 has no text of a field");
        await Refused("title,price\nBird feeder,cheap\n", "Row 2: “cheap” under “price” isn’t a number");
        await Refused("title,stars\nBird feeder,7\n", "Row 2: 7 stars aren’t possible");
        await Refused("title,shop\n" + string.Concat(Enumerable.Repeat("Bird feeder,Fen\n", 60)), "more than 50 rows");
        await Refused("title,shop\n" + string.Concat(Enumerable.Repeat("Bird feeder,Fen\n", 49)), "the limit is 50");
        Assert.Equal(2, Array(await shop.Post($"{listing}/rivals/compare", Draft), "rivals").Count);
    }

    [Fact]
    public async Task What_is_said_about_theirs_and_true_of_mine_comes_first_and_complaints_are_told_apart()
    {
        var listing = await Listing();
        await Choose(listing, 6);
        var fetched = await shop.Post($"{listing}/reviews/fetch", new { marketId = Market });
        // Those that the demo has, and those that the market has of the listing, since it was sent there.
        Assert.False(fetched["notSent"]!.GetValue<bool>());
        Assert.Equal(120 + 32, Number(fetched, "mine"));
        var elsewhere = await shop.Post($"{listing}/reviews/fetch", new { marketId = "hedgerow-fair-gb" });
        Assert.True(elsewhere["notSent"]!.GetValue<bool>());
        var buyers = await shop.Get($"{listing}/reviews/phrases?marketId={Market}");
        Assert.Equal(Number(fetched, "theirs"), Number(buyers, "theirs"));
        Assert.True(Number(buyers, "market") > 500);
        var phrases = Array(buyers, "phrases");
        Assert.Equal("clear acrylic", Text(phrases[0], "text"));
        Assert.True(phrases[0]!["isTrueOfMine"]!.GetValue<bool>());
        Assert.All(
            phrases.Where(p => p!["isTrueOfMine"]!.GetValue<bool>()),
            p => Assert.True(Number(p, "z") < 0 && Text(p, "tone") != "complaint" && Array(p!, "notInFacts").Count == 0)
        );
        Assert.Contains(phrases, p => Text(p, "tone") == "complaint");
        Assert.Contains(phrases, p => Text(p, "text") == "oak perch" && Number(p, "z") > 0);
        // Each that is shown under another is of the same side, and that one is in the list.
        foreach (var phrase in phrases.Where(p => p!["within"] is not null))
            Assert.Contains(phrases, p => Text(p, "text") == Text(phrase, "within") && Number(p, "z") > 0 == Number(phrase, "z") > 0);

        // A second time there is nothing new; one undo takes the first time back.
        Assert.Null((await shop.Post($"{listing}/reviews/fetch", new { marketId = Market }))["what"]);
        await shop.Post("/api/changes/undo?sure=true&product=2", new { });
        Assert.Equal(0, Number(await shop.Get($"{listing}/reviews/phrases?marketId={Market}"), "theirs"));
    }

    [Fact]
    public async Task Reviews_come_from_a_file_once_are_exported_and_removed_with_undo()
    {
        var id = await shop.ListingOf(1, "longbarrow");
        var listing = $"/api/listings/{id}";
        Task<JsonNode> Drop(string text, int status = 200) =>
            shop.Drop("longbarrow-us", id, "reviews.csv", text, "reviews", ofRivals: true, status: status);
        const string File = "review,stars,date\n\"Sturdy, and easy to clean.\",5,2026-03-31\nNo stars.,,\n";
        Assert.Equal("Imported 2 reviews", Text(await Drop(File), "what"));
        // The same once more adds nothing, and is no change.
        Assert.Null((await Drop(File))["what"]);
        var exported = await shop.Client.GetStringAsync($"{listing}/reviews/export.csv");
        Assert.Contains("rival,5,2026-03-31,\"Sturdy, and easy to clean.\",reviews.csv", exported);
        Assert.Contains("rival,,,No stars.,reviews.csv", exported);
        using (var gone = await shop.Client.DeleteAsync($"{listing}/reviews?ofRivals=true"))
            Assert.Contains("Removed 2 reviews", await gone.Content.ReadAsStringAsync());
        await shop.Post("/api/changes/undo?sure=true&product=1", new { });
        Assert.Contains("Sturdy", await shop.Client.GetStringAsync($"{listing}/reviews/export.csv"));

        async Task Refused(string text, string why) => Assert.Contains(why, Text(await Drop(text, 400), "detail"));
        await Refused("review,stars\nGood,9\n", "Row 2: “9” are no stars");
        await Refused("review,stars\n" + new string('a', 5001) + ",4\n", "Row 2 has 5,001 characters");
    }

    [Fact]
    public async Task Attributes_say_what_the_first_hundred_fill_and_give_the_value_that_fills_mine()
    {
        var listing = await Listing();
        var top = await shop.Post($"{listing}/top", Draft);
        Assert.Equal(("window bird feeder", 100), (Text(top, "term"), Number(top, "looked")));
        var colour = Array(top, "attributes").Single(a => Text(a, "name") == "Colour")!;
        var clear = Array(colour, "values").Single(v => Text(v, "text") == "clear")!;
        Assert.Equal("says", Text(clear, "byFacts"));
        Assert.Equal("clear", clear["value"]!["Colour"]!.GetValue<string>());
        // The facts know another colour: it is not offered.
        var green = Array(colour, "values").Single(v => Text(v, "text") == "green")!;
        Assert.Equal("denies", Text(green, "byFacts"));
        Assert.Null(green["value"]);
        Assert.Equal(["price", "sales", "views"], Array(clear, "differences").Select(d => Text(d, "figure")));

        var filled = await shop.Post($"{listing}/top", new { marketId = Market, fields = new { attributes = clear["value"] } });
        Assert.Equal(
            ["clear"],
            Array(Array(filled, "attributes").Single(a => Text(a, "name") == "Colour")!, "mine").Select(m => m!.GetValue<string>())
        );

        var words = Array(top, "words");
        Assert.Equal(words.Select(w => Number(w, "held")).OrderDescending(), words.Select(w => Number(w, "held")));
        Assert.True(words.Single(w => Text(w, "text") == "feeder")!["isMine"]!.GetValue<bool>());
        Assert.False(words.Single(w => Text(w, "text") == "bird feeder")!["isMine"]!.GetValue<bool>());
        Assert.Equal(0, Number(await shop.Post($"{listing}/top", new { marketId = Market, term = "zebra saddle" }), "looked"));
    }

    [Fact]
    public async Task Every_platform_of_a_product_is_weighed_and_a_text_is_brought_over_fitted()
    {
        var (here, there) = (await shop.ListingOf(2, "hedgerow-fair"), await shop.ListingOf(2, "longbarrow"));
        var all = await shop.Post("/api/products/2/platforms", new { country = "us", listingId = here });
        Assert.Equal(["Hedgerow Fair", "Longbarrow", "Web shop"], Array(all, "platforms").Select(p => Text(p, "name")));
        foreach (var place in Array(all, "platforms"))
        {
            var weighed = await shop.Post($"/api/listings/{place!["listingId"]}/weigh", new { marketId = Text(place, "marketId") });
            Assert.Equal(Number(weighed, "grip"), Number(place, "grip"), 1e-9);
            Assert.Equal(Number(weighed, "totalVolume") - Number(weighed, "volume"), Number(place, "lost"), 1e-6);
        }

        var brought = await shop.Post($"/api/listings/{here}/bring", new { marketId = Market, from = there });
        var title = Array(brought, "fields").Single(f => Text(f, "field") == "title")!;
        Assert.True(Text(title, "after").Length <= 120);
        var draft = (await shop.Get($"/api/listings/{here}"))["copy"]!.DeepClone();
        draft["title"] = title["value"]!.DeepClone();
        var after = await shop.Post($"/api/listings/{here}/weigh", new { marketId = Market, fields = draft });
        Assert.Equal(Number(brought, "grip") + Number(title, "gain"), Number(after, "grip"), 1e-9);
        // Another product's text is none of this one's.
        var other = await shop.ListingOf(1, "hedgerow-fair");
        await shop.Post($"/api/listings/{here}/bring", new { marketId = Market, from = other }, 404);
    }
}
