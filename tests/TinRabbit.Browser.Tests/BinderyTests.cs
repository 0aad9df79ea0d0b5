using System.Text.Json;
using OpenQA.Selenium;

namespace TinRabbit.Browser.Tests;

/// <summary>A bookbinder on a marketplace without a connection: from an empty shop and what they saved there to a change that is judged.</summary>
[Collection("browser")]
public sealed class BinderyTests
{
    private static readonly string Samples = Path.Combine(Repository.Root, "docs", "samples", "bindery");

    [Fact]
    public void From_dropped_files_to_picks_a_filled_listing_a_check_rivals_buyers_and_a_change_judged()
    {
        using var shop = new RunningShop(demo: false);
        using var browser = new Browser(shop);

        // An own platform, by its file, and the first product.
        Ask(browser, "PUT", "/api/shop", """{"name":"Foxglove Bindery","countries":["gb"],"currency":"GBP","language":"en"}""");
        var profile = File.ReadAllText(Path.Combine(Samples, "platform.json"));
        Ask(browser, "POST", "/api/platforms", $$"""{"profile":{{profile}},"like":"hedgerow-fair"}""");
        var product = JsonDocument.Parse(
            Ask(
                browser,
                "POST",
                "/api/products",
                """{"name":"Leather notebook cover","facts":{"what":"notebook cover","materials":["leather"],"colours":["brown"],"sizes":["A5"],"audiences":["writers"],"occasions":[]},"pictures":null}"""
            )
        );
        var desk = $"/{product.RootElement.GetProperty("id").GetInt32()}/weir-street-gb";
        Ask(browser, "POST", $"/api/products/{product.RootElement.GetProperty("id").GetInt32()}/listings/weir-street", "{}");

        // Nothing is known, and each screen says what to bring.
        browser.Go($"{desk}/dig?term=notebook%20cover");
        browser.Sees("[data-testid=known]", "No suggestions and no results of “notebook cover” known here yet");
        browser.Sees("[data-testid=lookups]", "0 of 1 done");
        Assert.Contains(
            "weirstreet.example/find?q=notebook%20cover",
            browser.Find("[data-testid=lookups] a").GetAttribute("href")!,
            StringComparison.Ordinal
        );
        browser.Go($"{desk}/weigh?view=top");
        browser.Sees("No picks yet, so there is nothing to search for");

        // The own export first, as it was live in August; then as it is.
        browser.Go($"{desk}/dig?term=notebook%20cover");
        Bring(browser, "2026-08-20", "listings in August.csv");
        browser.Sees("[data-testid=toast]", "Imported");
        browser.Reload();
        browser.Sees("[data-testid=lookups]", "0 of 1 done");

        // One search costs three keys: open, paste, Enter. What is pasted belongs to the term that is looked up.
        var page = File.ReadAllText(Path.Combine(Samples, "results", "notebook cover.html"));
        Paste(browser, page);
        browser.Sees("[data-testid=door-item]", "A results page for “notebook cover”");
        browser.Sees("[data-testid=door-item]", "48 listings, 3 of them ads");
        browser.Sees("[data-testid=door-item]", "12,431");
        browser.Press(Keys.Enter);
        browser.Sees("[data-testid=known]", "Results: 48 listings read, 3 of them ads, of 12,431.");
        browser.Sees("[data-testid=seen]", "Top 45 (3 ads left out)");
        Paste(browser, null, string.Join('\n', File.ReadLines(Path.Combine(Samples, "suggestions", "notebook cover.txt"))));
        browser.Sees("[data-testid=door-item]", "Search suggestions for “notebook cover”");
        browser.Press(Keys.Enter);
        browser.Sees("[data-testid=lookups]", "1 of 1 done");
        browser.Waits("the suggestion", () => browser.All("[role=row][data-id='notebook cover a5']").Count == 1);

        // Picked with a key each, also what sellers use.
        foreach (var term in (string[])["notebook cover", "refillable notebook cover", "notebook cover leather"])
        {
            browser.Click($"[role=row][data-id='{term}']");
            browser.Press("p");
            browser.Sees("[data-testid=toast]", $"Picked “{term}”");
        }

        browser.Sees("[data-testid=lookups]", "1 of 3 done");

        // A key takes all of an import back, once that is confirmed, and makes it again.
        Bring(browser, "2026-10-20", "listings.csv");
        browser.Sees("[data-testid=toast]", "Imported");
        browser.Press("u");
        browser.Sees("[data-testid=toast]", "Undo: Imported 4 of your listings?");
        browser.ClickText("Undo");
        browser.Sees("[data-testid=toast]", "Undone");
        browser.Chord(Keys.Shift, "u");
        browser.Sees("[data-testid=toast]", "Make again: Imported 4 of your listings?");
        browser.ClickText("Make again");
        browser.Sees("[data-testid=toast]", "Made again");
        Bring(browser, null, "terms.csv", "statistics.csv", "reviews.csv");
        Bring(
            browser,
            null,
            [
                .. Directory
                    .GetFiles(Path.Combine(Samples, "results"))
                    .Where(f => !f.Contains("October", StringComparison.Ordinal))
                    .Select(f => $"results/{Path.GetFileName(f)}"),
            ]
        );

        // Write: the title is filled, and goes out in the shape of the import.
        browser.Go($"{desk}/write");
        browser.Waits("the title", () => browser.Value("Title").StartsWith("Leather A5 notebook cover", StringComparison.Ordinal));
        browser.AltShift("f");
        browser.Sees("[data-testid=fill]", "Use this title");
        browser.Press(Keys.Enter);
        browser.Waits(
            "another title",
            () => !browser.Value("Title").StartsWith("Leather A5 notebook cover, refillable, with", StringComparison.Ordinal)
        );
        browser.Sees("[data-testid=save-state]", "Saved");
        var exported = Ask(browser, "GET", "/api/platforms/weir-street/listings.csv", null);
        Assert.StartsWith("Listing ID,SKU,Title,Keywords,Description,Price (GBP),Quantity", exported, StringComparison.Ordinal);
        Assert.Contains("leather-a5-notebook-cover,FB-NC-A5,", exported, StringComparison.Ordinal);

        // A found check came of the pages alone.
        browser.Go($"{desk}/watch");
        browser.Sees("Found for");
        Assert.Contains(
            browser.Texts("[role=row][data-id]"),
            r => r.Contains("notebook cover", StringComparison.Ordinal) && r.Contains("14", StringComparison.Ordinal)
        );

        // Rivals, what buyers say, the first listings.
        browser.Go($"{desk}/weigh?view=rivals");
        Bring(browser, null, "listings/rival 1.html", "listings/rival 2.html", "listings/rival 3.html");
        browser.Waits("three rivals", () => browser.All("[role=row][data-id]").Count >= 4);
        browser.Go($"{desk}/weigh?view=buyers");
        browser.Sees("42 reviews of yours, 72 of your rivals’");
        browser.Waits("phrases", () => browser.Texts("main").Any(t => t.Contains("initials", StringComparison.Ordinal)));
        browser.Go($"{desk}/weigh?view=top");
        browser.Sees("Seen on");

        // And the change of October is judged by the statistics.
        browser.Go($"{desk}/watch?view=notes");
        browser.Sees("1 change");
        browser.Waits("a verdict", () => browser.Texts("[role=row][data-id]").Any(r => r.Contains('%')));
        Assert.Empty(browser.Complaints());
    }

    [Fact]
    public void Twenty_pages_are_one_preview_and_what_cannot_be_read_is_left_out_by_hand()
    {
        using var shop = new RunningShop(demo: false);
        using var browser = new Browser(shop);
        Ask(browser, "PUT", "/api/shop", """{"name":"Foxglove Bindery","countries":["gb"],"currency":"GBP","language":"en"}""");
        Ask(browser, "POST", "/api/products", """{"name":"Guest book","facts":null,"pictures":null}""");
        browser.Go("/listings");
        browser.Sees("Guest book");
        browser.Press("v");
        browser.Find("[data-testid=door]");
        Choose(browser, [.. Directory.GetFiles(Path.Combine(Samples, "results")), Path.Combine(Samples, "platform.json")]);
        browser.Waits("all files", () => browser.All(".door-list li").Count == 11);
        browser.Waits("a disabled button", () => !browser.Find("dialog .btn-primary").Enabled);
        browser.ClickText("platform.json");
        browser.Find("dialog .checkbox").Click();
        browser.Waits("the button", () => browser.Find("dialog .btn-primary").Enabled);
        browser.Click("dialog .btn-primary");
        browser.Sees("[data-testid=toast]", "Imported 10 pages and files");
    }

    [Fact]
    public void The_second_demo_fills_itself_through_the_door_and_shows_something_everywhere()
    {
        using var shop = new RunningShop(demo: true, other: "bindery");
        using var browser = new Browser(shop);
        browser.Go("/1/weir-street-gb/dig?term=notebook%20cover");
        browser.Sees("[data-testid=known]", "Results: 48 listings read");
        browser.Sees("[data-testid=lookups]", "of 7 done");
        browser.Go("/1/weir-street-gb/watch");
        browser.Sees("Found for 5 of 5 terms");
        browser.Go("/1/weir-street-gb/watch?view=notes");
        browser.Waits("a verdict", () => browser.Texts("[role=row][data-id]").Any(r => r.Contains('%')));
        browser.Go("/1/weir-street-gb/weigh?view=rivals");
        browser.Waits("rivals", () => browser.All("[role=row][data-id]").Count == 4);
        browser.Go("/1/weir-street-gb/weigh?view=top&words=title");
        browser.Waits("words", () => browser.All("[role=row][data-id]").Count > 10);
        Assert.DoesNotContain("Sample data", browser.Text("body"), StringComparison.Ordinal);
        Assert.Empty(browser.Complaints());
    }

    [Fact]
    public void A_new_shop_can_begin_with_the_listings_that_a_marketplace_exports()
    {
        using var shop = new RunningShop(demo: false);
        using var browser = new Browser(shop);
        browser.Go("/");
        browser.Sees("Add your first product");
        browser.Sees("Choose the place first.");
        browser.Press(Keys.Tab, Keys.Tab, " ");
        for (var i = 0; i < 6; i++)
            browser.Press(Keys.ArrowDown);
        browser.Sees("Most like");
        browser.Press(Keys.Tab, "Weir Lane", Keys.Tab, "Hedgerow");
        browser.ClickText("Import your listings…");
        browser.Find("[data-testid=door]");
        Choose(browser, Path.Combine(Samples, "listings.csv"));
        browser.Sees("[data-testid=door-item]", "Weir Lane");
        browser.Waits("all of it read", () => browser.Find("dialog .btn-primary").Enabled);
        browser.Click("dialog .btn-primary");
        browser.Waits("the listings", () => browser.Address == "/listings");
        browser.Waits("all four", () => browser.All("[role=row][data-id]").Count == 4);
        browser.Sees("[role=row][data-id]", "Weir Lane");
        Assert.Empty(browser.Complaints());
    }

    // Brings sample files in through the door, seen or live on a day.
    private static void Bring(Browser browser, string? day, params string[] files)
    {
        browser.Find(".topbar");
        browser.Press("v");
        browser.Find("[data-testid=door]");
        Choose(browser, [.. files.Select(f => Path.Combine(Samples, f))]);
        browser.Find("[data-testid=door-item]");
        if (day is not null)
        {
            browser.Run(
                "const i = document.querySelector('dialog input[type=date]'); Object.getOwnPropertyDescriptor(HTMLInputElement.prototype, 'value').set.call(i, arguments[0]); i.dispatchEvent(new Event('input', { bubbles: true }))",
                day
            );
            browser.Waits("the day", () => browser.Find("dialog input[type=date]").GetAttribute("value") == day);
        }

        browser.Waits("all of it read", () => browser.Find("dialog .btn-primary").Enabled);
        browser.Click("dialog .btn-primary");
        browser.Waits("the door closed", () => browser.All("dialog").Count == 0);
    }

    private static void Choose(Browser browser, params string[] files) =>
        browser.Find("dialog input[type=file]").SendKeys(string.Join('\n', files));

    private static void Paste(Browser browser, string? html, string text = "copied") =>
        browser.Run(
            "const d = new DataTransfer(); if (arguments[0]) d.setData('text/html', arguments[0]); d.setData('text/plain', arguments[1]); document.body.dispatchEvent(new ClipboardEvent('paste', { clipboardData: d, bubbles: true, cancelable: true }))",
            html ?? "",
            text
        );

    private static string Ask(Browser browser, string method, string path, string? body)
    {
        if (browser.Address is "data:," or "" || !browser.Address.StartsWith('/'))
            browser.Go("/");
        return (string)
            browser.RunAsync(
                "const [m, p, b, done] = arguments; fetch(p, { method: m, body: b, headers: b ? { 'content-type': 'application/json' } : {} }).then(async (r) => done(await r.text()))",
                method,
                path,
                body!
            )!;
    }
}
