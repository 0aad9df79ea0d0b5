using OpenQA.Selenium;

namespace TinRabbit.Browser.Tests;

/// <summary>The demo's shop, shared by the tests below: each works on what no other touches.</summary>
public sealed class DemoShop : IDisposable
{
    public RunningShop Shop { get; } = new(demo: true);

    public void Dispose() => Shop.Dispose();
}

public sealed class SliceTests(DemoShop demo) : IClassFixture<DemoShop>
{
    [Fact]
    public void A_seller_digs_picks_writes_on_two_platforms_weighs_copies_and_finds_all_of_it_again()
    {
        using var shop = new RunningShop(demo: false);
        using var browser = new Browser(shop);

        // The first product, by keyboard alone.
        browser.Go("/");
        browser.Sees("What do you sell first?");
        browser.Press("Wren nest box", Keys.Tab, "nest box", Keys.Enter);
        browser.Sees("[role=row]", "cedar nest box");
        browser.Sees("[aria-label=Trail]", "nest box");

        // Dig: walk, pick with one key, go deeper, come back by the trail.
        browser.Press(Keys.ArrowDown, Keys.ArrowUp, "p");
        browser.Sees("[data-testid=toast]", "Picked “nest box”");
        PickNamed(browser, "cedar nest box");
        PickNamed(browser, "wren nest box");
        PickNamed(browser, "nest box kit");
        browser.Sees("[data-testid=pocket]", "Pocket 4");
        browser.Press(Keys.Enter);
        browser.Sees("[role=row][aria-selected=true]", "nest box kit");
        browser.Waits("the deeper dig in the address", () => browser.Address.Contains("term=nest+box+kit") && browser.Address.Contains("parent="));
        browser.Waits("two steps in the trail", () => browser.All("[aria-label=Trail] li").Count == 2);

        // Pick: fit, home, lead, by key.
        browser.Chord(Keys.Alt, "2");
        browser.Sees("4 picks");
        browser.Press(Keys.ArrowDown, "2", "t", "e");
        browser.Sees("[data-testid=toast]", "“cedar nest box” leads this listing");
        browser.Sees("[role=row][aria-selected=true]", "good");
        browser.Sees("[role=row][aria-selected=true]", "title");

        // Write on the literal marketplace: the figures move as one types.
        browser.Chord(Keys.Alt, "3");
        browser.Waits("reach of nothing", () => browser.Text("[data-testid=reach]") == "0%");
        browser.Write("Title", "Cedar nest boxes for wrens");
        browser.Sees("[data-testid=sheet]", "26 of 120");
        browser.Sees("aside [role=row]", "has “boxes”");
        browser.Write("Title", "Cedar nest box, wren nest box");
        browser.Waits("a solid thread under the phrase", () => browser.All(".under .whole").Any(e => e.GetAttribute("textContent")!.Contains("Cedar nest box")));
        browser.Waits("reach to rise", () => browser.Text("[data-testid=reach]") != "0%");
        browser.Write("Tags 1", "nest box kit");
        browser.Waits("all picks held", () => browser.Text("[data-testid=reach]") == "100%");
        browser.Sees("[data-testid=save-state]", "All saved");

        // And on the folding one.
        browser.Go(browser.Address.Replace("hedgerow-fair-us", "longbarrow-us"));
        browser.Write("Title", "Nest boxes of cedar");
        browser.Waits("a knot at the end of an inflected phrase", () => browser.All(".under .inflected.end").Count == 1);
        browser.Write("Bullet points 1", "A kit for wrens");
        browser.Write("Backend keywords", "pájaros  wren");
        browser.Sees("[data-testid=sheet]", "13 of 240 bytes");
        browser.Sees("[data-testid=save-state]", "All saved");
        browser.ClickText("Copy all");
        browser.Sees("[data-testid=toast]", "The whole listing copied");
        Assert.Contains("Title\nNest boxes of cedar\n\nBullet points\nA kit for wrens", browser.Clipboard().ReplaceLineEndings("\n"));
        browser.Click("[aria-label='Copy Backend keywords']");
        browser.Waits("the words alone, single-spaced", () => browser.Clipboard() == "pájaros wren");

        // Weigh, opened to what made it.
        browser.Chord(Keys.Alt, "4");
        browser.Sees("[data-testid=trace]", "Grip");
        var reach = browser.Text("[data-testid=reach]");
        browser.Reload();
        browser.Waits("the same reach after a reload", () => browser.Text("[data-testid=reach]") == reach);

        // Everything is still there.
        browser.Go("/");
        browser.Chord(Keys.Alt, "3");
        browser.Waits("the saved title", () => browser.Value("Title") == "Nest boxes of cedar");
        Assert.Equal("A kit for wrens", browser.Value("Bullet points 1"));
        browser.Go(browser.Address.Replace("longbarrow-us", "hedgerow-fair-us"));
        browser.Waits("the other platform's title", () => browser.Value("Title") == "Cedar nest box, wren nest box");
        browser.Sees("[data-testid=sheet]", "cedar nest box"); // the lead
        browser.Sees("[data-testid=pocket]", "Pocket 4");
        Assert.Empty(browser.Complaints());
    }

    [Fact]
    public void A_dig_is_sorted_filtered_and_undone_by_key()
    {
        using var browser = new Browser(demo.Shop);
        browser.Go("/2/hedgerow-fair-us/dig?term=bird+feeder");
        browser.Sees("[role=row]", "bird feeder");
        browser.ClickText("headroom");
        browser.Waits("headroom falling", () => Falls(Numbers(browser, 5)));
        browser.Press("f", "wood -kit", Keys.Enter);
        browser.Waits("only what passes", () => Terms(browser) is { Length: > 1 } terms && terms.All(t => t.Contains("wood") && !t.Contains("kit")));
        var all = Terms(browser);
        browser.Press("x");
        browser.Sees("[data-testid=toast]", $"Avoided “{all[0]}”");
        browser.Waits("struck out", () => browser.All(".grid-row.struck").Count == 1);
        browser.Press(Keys.ArrowDown, "p");
        browser.Sees("[data-testid=pocket]", "Pocket 1");
        browser.Press("u");
        browser.Sees("[data-testid=toast]", "Undone: picked");
        browser.Sees("[data-testid=pocket]", "Pocket 0");
        browser.Chord(Keys.Control, "z");
        browser.Waits("nothing struck out", () => browser.All(".grid-row.struck").Count == 0);
        browser.Reload();
        browser.Waits("the same filter after a reload", () => Terms(browser).SequenceEqual(all));
        Assert.Empty(browser.Complaints());
    }

    [Fact]
    public void A_pasted_column_joins_the_shelf_and_bad_lines_stay_for_correction()
    {
        using var browser = new Browser(demo.Shop);
        browser.Go("/3/longbarrow-au/dig");
        browser.Sees("[role=row]", "bird house");
        browser.Press("v");
        browser.Write("Terms to paste", "roost lodge; 1,300; 210\nlodge for roosts; many\nzzz roost lodge");
        browser.Chord(Keys.Control, Keys.Enter);
        browser.Sees("[data-testid=bad-lines]", "\"many\" is no volume");
        Assert.Equal("lodge for roosts; many", browser.Value("Terms to paste"));
        browser.Write("Terms to paste", "lodge for roosts; 90");
        browser.Chord(Keys.Control, Keys.Enter);
        browser.Sees("1 term is on the shelf, 1 of them new.");
        browser.Press(Keys.Escape);
        browser.Press("f", "lodge", Keys.Enter);
        browser.Waits("the three of them", () => Terms(browser).SequenceEqual(["roost lodge", "lodge for roosts", "zzz roost lodge"]));
        Assert.Contains("–", browser.Text("[data-id='zzz roost lodge']")); // unknown is not zero
        Assert.Empty(browser.Complaints());
    }

    [Fact]
    public void The_tape_turns_over_the_limit_and_says_by_how_many()
    {
        using var browser = new Browser(demo.Shop);
        browser.Go("/3/hedgerow-fair-us/write");
        browser.Write("Title", new string('x', 118) + "🐦🐦");
        browser.Sees("[data-testid=sheet]", "120 of 120");
        browser.Labelled("Title").SendKeys("é");
        browser.Sees("[data-testid=sheet]", "over by 1");
        browser.Run("""
            const box = document.querySelector('[aria-label="Tags 1"]'), data = new DataTransfer();
            data.setData('text/plain', 'bat box, bat house; larch bat box for the barn wall');
            box.dispatchEvent(new ClipboardEvent('paste', { clipboardData: data, bubbles: true, cancelable: true }));
            """);
        browser.Waits("the list over three tags", () => browser.Value("Tags 2") == "bat house");
        browser.Sees("[data-testid=sheet]", "over by 7");
        browser.Sees("[data-testid=save-state]", "All saved");
    }

    [Fact]
    public void Two_windows_on_one_listing_lose_nothing_silently()
    {
        using var browser = new Browser(demo.Shop);
        browser.Go("/4/hedgerow-fair-us/write");
        browser.Waits("the title", () => browser.Value("Title").Length > 0);
        var first = browser.NewWindow();
        browser.Go("/4/hedgerow-fair-us/write");
        browser.Write("Title", "From the second window");
        browser.Sees("[data-testid=save-state]", "All saved");
        browser.SwitchTo(first);
        browser.Write("Title", "From the first window");
        browser.Sees("[data-testid=conflict]", "From the second window");
        browser.Sees("[data-testid=conflict]", "From the first window");
        browser.ClickText("Keep what is here");
        browser.Sees("[data-testid=save-state]", "All saved");
        browser.Reload();
        browser.Waits("what was kept", () => browser.Value("Title") == "From the first window");
    }

    [Fact]
    public void Keys_and_find_anything_open_by_key_and_figures_open_to_what_made_them()
    {
        using var browser = new Browser(demo.Shop);
        browser.Go("/1/hedgerow-fair-us/weigh?at=cedar+bird+house");
        browser.Sees("[data-testid=trace]", "0.8 × 0.6 × 1");
        browser.Sees("[data-testid=trace]", "1 − (1 − 0.480) × (1 − 0.120)");
        browser.Press("?");
        browser.Sees("dialog", "Make it the lead of this listing");
        browser.Press(Keys.Escape);
        browser.Waits("the sheet gone", () => browser.All("dialog").Count == 0);
        browser.Chord(Keys.Control, "k");
        browser.Press("bat box", Keys.ArrowDown, Keys.ArrowUp, Keys.Enter);
        browser.Waits("the bat box", () => browser.Address.StartsWith("/3/", StringComparison.Ordinal));
        browser.Go("/1/hedgerow-fair-us/dig?term=nest+box");
        browser.Sees("[data-testid=detail]", "What made the headroom");
        browser.Click("[data-testid=detail] summary");
        browser.Sees("[data-testid=detail]", "Typical on this shelf");
        browser.ClickText("As a table, all 30 months");
        browser.Waits("thirty months", () => browser.All("[data-testid=detail] table.num tr").Count == 30);
        Assert.Empty(browser.Complaints());
    }

    private static void PickNamed(Browser browser, string term)
    {
        browser.Click($"[data-id='{term}']");
        browser.Press("p");
        browser.Sees("[data-testid=toast]", $"Picked “{term}”");
    }

    private static string[] Terms(Browser browser) => [.. browser.All("[data-testid=rows] [role=row] [role=gridcell]:first-child").Select(e => e.Text)];

    private static double[] Numbers(Browser browser, int column) =>
        [.. browser.All($"[data-testid=rows] [role=row] [role=gridcell]:nth-child({column})").Take(10).Select(e => double.TryParse(e.Text, out var n) ? n : -1)];

    private static bool Falls(double[] numbers) => numbers.Length > 5 && numbers.Zip(numbers.Skip(1)).All(p => p.First >= p.Second) && numbers[0] > numbers[^1];
}
