using OpenQA.Selenium;

namespace TinRabbit.Browser.Tests;

/// <summary>A listing that is improved, sent, found and watched.</summary>
public sealed class WatchTests
{
    private static string Listing(RunningShop shop, Browser browser) =>
        (string)
            browser.RunAsync(
                "const done = arguments[arguments.length - 1]; fetch('/api/shop').then(r => r.json()).then(s => { const p = s.products.find(p => p.name === 'Garden birds wall chart'); done(`/${p.id}/hedgerow-fair-us`) })"
            )!;

    [Fact]
    public void A_poor_listing_is_improved_and_sent_the_check_flips_the_ranks_rise_and_the_verdict_is_honest()
    {
        using var shop = new RunningShop(demo: true);
        using var browser = new Browser(shop);
        browser.Go("/listings");
        browser.Sees("[data-testid=listings]", "listings");
        var desk = Listing(shop, browser);

        // A check by key: the listing is not found for what shoppers type.
        browser.Go($"{desk}/watch");
        browser.Sees("[data-testid=found-of]", "Found for");
        browser.Chord(Keys.Shift, "o");
        browser.Labelled("Terms, one a line").SendKeys("nature print\nbird print");
        browser.Chord(Keys.Control, Keys.Enter);
        browser.Waits("the terms", () => browser.Texts("[role=row][data-id]").Any(r => r.Contains("nature print")));
        Row(browser, "nature print");
        browser.Sees("[data-testid=why]", "Missing: nature, print");

        // Written and sent: the index knows it only tomorrow.
        browser.AltShift("3");
        browser.Write("Title", "Nature print of garden birds, bird print for garden lovers, garden birds wall chart");
        browser.Write(
            "Description",
            "Forty garden birds in watercolour: a nature print for the kitchen, and a bird print for garden lovers."
        );
        browser.Waits("the save", () => !browser.Text("body").Contains("Saving"));
        browser.Go($"{desk}/write?side=send");
        browser.WaitsForChecks();
        browser.ClickText("Send listing");
        browser.Sees("[data-testid=toast]", "Sent to the simulated Hedgerow Fair");
        browser.AltShift("5");
        browser.Sees("[data-testid=found-state]", "Search results still show the text before");
        browser.Press("c");
        browser.Waits("another check", () => !browser.Text("[data-testid=found]").Contains("Checking"));
        Row(browser, "nature print");
        browser.Sees("[data-testid=why]", "the index had not updated yet, until");

        // A day later it is found: the check of the day says so by itself.
        browser.Chord(Keys.Shift, "d");
        browser.Sees("[data-testid=found-state]", "newly");
        Row(browser, "nature print");
        browser.Sees("[data-testid=why]", "Rank ");
        Assert.Contains(
            "Now found",
            browser.Texts("[role=row][data-id]").Single(r => r.StartsWith("nature print", StringComparison.Ordinal))
        );
        Row(browser, "bird print");
        var before = Rank(browser);
        browser.Chord(Keys.Shift, "3");
        browser.Sees("[data-testid=notes-detail]", "Can’t tell yet: about 7 more days");

        // Weeks later it has climbed. Whether that can be told from chance depends on the season, but it is never called a fall.
        const string rose = "Views rose by";
        for (var week = 0; week < 4 && !browser.Text("[data-testid=notes-detail]").Contains(rose); week++)
        {
            var now = browser.Text("[data-testid=clock]");
            browser.Chord(Keys.Shift, "w");
            browser.Waits(
                "a week",
                () => browser.Text("[data-testid=clock]") is var later && later != now && later.Contains("One week later")
            );
        }

        browser.Sees("[data-testid=effect-views]", "That is taken off");
        Assert.Matches("Views rose by|No clear difference|Can’t tell yet", browser.Text("[data-testid=effect-views]"));
        browser.Sees("[data-testid=notes-detail]", "on each side");
        Assert.Contains("Title", browser.Text("[data-testid=note-detail]"));
        browser.Chord(Keys.Shift, "1");
        Row(browser, "bird print");
        browser.Waits("a better rank", () => Rank(browser) < before);
        Assert.Empty(browser.Complaints());
    }

    [Fact]
    public void Days_are_read_zoomed_and_walked_by_key_and_a_note_is_added_and_undone()
    {
        using var shop = new RunningShop(demo: true);
        using var browser = new Browser(shop);
        browser.Go("/1/hedgerow-fair-us/watch?view=days");
        browser.Find(".days-chart canvas");
        browser.Sees("[data-testid=days] h1", "views in the last 14 days");
        var last = browser.Text("[data-testid=read-out] h3");
        browser.Press(Keys.ArrowLeft);
        browser.Waits("the day before", () => browser.Text("[data-testid=read-out] h3") != last);

        // To the change, and its verdict.
        browser.Press(",");
        browser.Sees("[data-testid=read-out]", "Raised the price from $32 to $34");
        browser.Press("+", "+");
        browser.Waits("fewer days", () => browser.Texts("[role=row][data-id]").Count is > 5 and < 40);
        browser.Press("0", "m");
        browser.Sees("[data-testid=days] h1", "clicks in the last 14 days");
        for (var i = 0; i < 3; i++)
        {
            var measure = browser.Text("[data-testid=days] h1");
            browser.Press("m");
            browser.Waits("the next measure", () => browser.Text("[data-testid=days] h1") != measure);
        }

        browser.Sees("[data-testid=days] h1", "bird house: ");
        var shown = Shown(browser);
        browser.Drag(".days-chart .u-over", 100, 220);
        browser.Waits("the days that were dragged over", () => Shown(browser) != shown);
        browser.Press("0");
        browser.Waits("all days", () => Shown(browser) == shown);

        browser.Chord(Keys.Shift, "3");
        browser.Press("n");
        browser.Find("dialog input").SendKeys("Added three photos");
        browser.ClickText("Photos");
        browser.ClickText("Save");
        browser.Sees("[data-testid=toast]", "Added the note “Added three photos”");
        browser.Waits("the note", () => browser.Texts("[role=row][data-id]").Any(r => r.Contains("Added three photos")));
        browser.Press("u");
        browser.Sees("[data-testid=toast]", "Undone: Added the note");
        browser.Waits("no note", () => browser.Texts("[role=row][data-id]").All(r => !r.Contains("Added three photos")));

        // The whole shop: movers, journal, what has worked.
        browser.AltShift("8");
        browser.Sees("[data-testid=movers]", "the largest movers first");
        browser.Chord(Keys.Shift, "2");
        browser.Sees("[data-testid=journal]", "in the journal");
        browser.Write("Search the journal", "photos");
        browser.Waits("one note", () => browser.All("[role=row][data-id]").Count == 1);
        browser.Press(Keys.Escape);
        browser.Chord(Keys.Shift, "3");
        browser.Sees("[data-testid=worked]", "Not enough data: 1 of at least 3 changes that can be compared");
        Assert.Empty(browser.Complaints());
    }

    // The days that the chart says it shows.
    private static string Shown(Browser browser) => browser.Find(".days-chart").GetAttribute("aria-label") ?? "";

    private static void Row(Browser browser, string term)
    {
        browser.Waits(
            $"the row of {term}",
            () => browser.All("[role=row][data-id]").FirstOrDefault(r => r.Text.StartsWith(term, StringComparison.Ordinal)) is not null
        );
        browser.Run("[...document.querySelectorAll('[role=row][data-id]')].find(r => r.innerText.startsWith(arguments[0])).click()", term);
        browser.Sees("[data-testid=why]", term);
    }

    private static int Rank(Browser browser) =>
        int.Parse(
            System.Text.RegularExpressions.Regex.Match(browser.Text("[data-testid=why]"), @"Rank ([\d,]+)").Groups[1].Value.Replace(",", "")
        );
}
