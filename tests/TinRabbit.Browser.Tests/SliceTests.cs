using OpenQA.Selenium;

namespace TinRabbit.Browser.Tests;

/// <summary>The demo's shop, shared by the tests below: each works on what no other touches.</summary>
public sealed class DemoShop : IDisposable
{
    public RunningShop Shop { get; } = new(demo: true);

    public void Dispose() => Shop.Dispose();
}

[Collection("browser")] // a server and a browser at a time: side by side they keep each other waiting
public sealed class SliceTests(DemoShop demo) : IClassFixture<DemoShop>
{
    [Fact]
    public void A_seller_digs_picks_writes_on_two_platforms_weighs_copies_and_finds_all_of_it_again()
    {
        using var shop = new RunningShop(demo: false, connected: true);
        using var browser = new Browser(shop);

        // The first product, by keyboard alone.
        browser.Go("/");
        browser.Sees("Add your first product");
        browser.Press("Wren nest box", Keys.Tab, "nest box", Keys.Tab);
        browser.Press(" ", Keys.ArrowDown); // the first place, then the one below: Hedgerow Fair
        browser.Press(Keys.Enter);
        browser.Sees("[role=row]", "bluebird nest box");
        browser.Sees("[aria-label=Trail]", "nest box");

        // Dig: walk, pick with one key, go deeper, come back by the trail.
        browser.Press(Keys.ArrowDown, Keys.ArrowUp, "p");
        browser.Sees("[data-testid=toast]", "Picked “nest box”");
        PickNamed(browser, "bluebird nest box");
        PickNamed(browser, "wren nest box");
        PickNamed(browser, "nest box kit");
        browser.Sees("[data-testid=pocket]", "Pocket 4");
        browser.Press(Keys.Enter);
        browser.Sees("[role=row][aria-current=true]", "nest box kit");
        browser.Waits(
            "the deeper dig in the address",
            () => browser.Address.Contains("term=nest+box+kit") && browser.Address.Contains("parent=")
        );
        browser.Waits("two steps in the trail", () => browser.All("[aria-label=Trail] li").Count == 2);

        // Pick: fit, home, lead, by key.
        browser.AltShift("2");
        browser.Sees("4 picks");
        browser.Press(Keys.ArrowDown, "2", "t", "e");
        browser.Sees("[data-testid=toast]", "Set “bluebird nest box” as lead");
        browser.Sees("[role=row][aria-current=true]", "good");
        browser.Sees("[role=row][aria-current=true]", "title");

        // Write on the literal marketplace: the figures move as one types.
        browser.AltShift("3");
        browser.Waits("reach of nothing", () => browser.Text("[data-testid=reach]") == "0%");
        browser.Write("Title", "Bluebird nest boxes for wrens");
        browser.Sees("[data-testid=sheet]", "29 of 120");
        browser.Sees("aside [role=row]", "has “boxes”");
        browser.Write("Title", "Bluebird nest box, wren nest box");
        browser.Waits(
            "a solid thread under the phrase",
            () => browser.All(".under .whole").Any(e => e.GetAttribute("textContent")!.Contains("Bluebird nest box"))
        );
        browser.Waits("reach to rise", () => browser.Text("[data-testid=reach]") != "0%");
        browser.Write("Tags 1", "nest box kit");
        browser.Waits("all picks held", () => browser.Text("[data-testid=reach]") == "100%");
        browser.Sees("[data-testid=save-state]", "Saved automatically");

        // And on the folding one.
        browser.Go(browser.Address.Replace("hedgerow-fair-us", "longbarrow-us"));
        browser.ClickText("Create listing");
        browser.Write("Title", "Nest boxes of cedar");
        browser.Waits("a knot at the end of an inflected phrase", () => browser.All(".under .inflected.end").Count == 1);
        browser.Write("Bullet points 1", "A kit for wrens");
        browser.Write("Backend keywords", "pájaros  wren");
        browser.Sees("[data-testid=sheet]", "13 of 240 bytes");
        browser.Sees("[data-testid=save-state]", "Saved automatically");
        browser.ClickText("Copy all");
        browser.Sees("[data-testid=toast]", "Listing copied");
        Assert.Contains("Title\nNest boxes of cedar\n\nBullet points\nA kit for wrens", browser.Clipboard().ReplaceLineEndings("\n"));
        browser.Click("[aria-label='Copy Backend keywords']");
        browser.Waits("the words alone, single-spaced", () => browser.Clipboard() == "pájaros wren");

        // Weigh, opened to what made it.
        browser.AltShift("4");
        browser.Sees("[data-testid=moves]", "Single edits");
        browser.Chord(Keys.Shift, "p");
        browser.Sees("[data-testid=trace]", "Grip");
        var reach = browser.Text("[data-testid=reach]");
        browser.Reload();
        browser.Waits("the same reach after a reload", () => browser.Text("[data-testid=reach]") == reach);

        // Everything is still there; the shop opens on its two listings.
        browser.Go("/");
        browser.Sees("[data-testid=listings]", "2 listings");
        browser.AltShift("1"); // back to where one was
        browser.Sees("[data-testid=pocket]", "Pocket");
        browser.AltShift("3");
        browser.Waits("the saved title", () => browser.Value("Title") == "Nest boxes of cedar");
        Assert.Equal("A kit for wrens", browser.Value("Bullet points 1"));
        browser.Go(browser.Address.Replace("longbarrow-us", "hedgerow-fair-us"));
        browser.Waits("the other platform's title", () => browser.Value("Title") == "Bluebird nest box, wren nest box");
        browser.Sees("[data-testid=sheet]", "bluebird nest box"); // the lead
        browser.Sees("[data-testid=pocket]", "Pocket 4");
        Assert.Empty(browser.Complaints());
    }

    [Fact]
    public void A_dig_is_sorted_filtered_and_undone_by_key()
    {
        using var browser = new Browser(demo.Shop);
        browser.Go("/2/hedgerow-fair-us/dig?term=bird+feeder");
        browser.Sees("[role=row]", "bird feeder");
        browser.ClickText("Headroom");
        browser.Waits("headroom falling", () => Falls(Numbers(browser, 6)));
        browser.Press("f", "wood -kit", Keys.Enter);
        browser.Waits(
            "only what passes",
            () => Terms(browser) is { Length: > 1 } terms && terms.All(t => t.Contains("wood") && !t.Contains("kit"))
        );
        var all = Terms(browser);
        browser.Press("x");
        browser.Sees("[data-testid=toast]", $"Marked “{all[0]}” as avoid");
        browser.Waits("struck out", () => browser.All(".grid-row.struck").Count == 1);
        browser.Press(Keys.ArrowDown, "p");
        browser.Sees("[data-testid=pocket]", "Pocket 11");
        browser.Press("u");
        browser.Sees("[data-testid=toast]", "Undone: Picked");
        browser.Sees("[data-testid=pocket]", "Pocket 10");
        browser.Chord(Keys.Control, "z");
        browser.Waits("nothing struck out", () => browser.All(".grid-row.struck").Count == 0);
        browser.Reload();
        browser.Waits("the same filter after a reload", () => Terms(browser).SequenceEqual(all));
        Assert.Empty(browser.Complaints());
    }

    [Fact]
    public void Several_terms_stand_side_by_side_with_their_numbers()
    {
        using var browser = new Browser(demo.Shop);
        browser.Go("/1/hedgerow-fair-us/dig");
        browser.Write("Search for a term", "bird house; nest box, owl house");
        browser.Press(Keys.Enter);
        browser.Waits(
            "the three terms, measured",
            () =>
                browser.Run(
                    "return [...document.querySelectorAll('[role=row]')].filter(r => /^(bird house|nest box|owl house)/.test(r.textContent.trim()) && /\\d/.test(r.textContent)).length"
                )
                    is 3L
        );
    }

    [Fact]
    public void A_pasted_column_joins_the_shelf_and_bad_lines_stay_for_correction()
    {
        using var browser = new Browser(demo.Shop);
        browser.Go("/3/longbarrow-au/dig");
        browser.Sees("[role=row]", "bird house");
        browser.Chord(Keys.Shift, "v");
        browser.Write("Terms to paste", "roost lodge; 1,300; 210\nlodge for roosts; many\nzzz roost lodge");
        browser.Chord(Keys.Control, Keys.Enter);
        browser.Sees("[data-testid=bad-lines]", "“many” is not a number of searches");
        Assert.Equal("lodge for roosts; many", browser.Value("Terms to paste"));
        browser.Write("Terms to paste", "lodge for roosts; 90");
        browser.Chord(Keys.Control, Keys.Enter);
        browser.Sees("1 term added.");
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
        browser.Sees("[data-testid=sheet]", "1 too long");
        browser.Run(
            """
            const box = document.querySelector('[aria-label="Tags 1"]'), data = new DataTransfer();
            data.setData('text/plain', 'bat box, bat house; larch bat box for the barn wall');
            box.dispatchEvent(new ClipboardEvent('paste', { clipboardData: data, bubbles: true, cancelable: true }));
            """
        );
        browser.Waits("the list over three tags", () => browser.Value("Tags 2") == "bat house");
        browser.Sees("[data-testid=sheet]", "7 too long");
        browser.Sees("[data-testid=save-state]", "Saved automatically");
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
        browser.Sees("[data-testid=save-state]", "Saved automatically");
        browser.SwitchTo(first);
        browser.Write("Title", "From the first window");
        browser.Sees("[data-testid=conflict]", "From the second window");
        browser.Sees("[data-testid=conflict]", "From the first window");
        browser.ClickText("Keep this window’s text");
        browser.Sees("[data-testid=save-state]", "Saved automatically");
        browser.Reload();
        browser.Waits("what was kept", () => browser.Value("Title") == "From the first window");
    }

    [Fact]
    public void Keys_and_find_anything_open_by_key_and_figures_open_to_what_made_them()
    {
        using var browser = new Browser(demo.Shop);
        browser.Go("/1/hedgerow-fair-us/weigh?at=cedar+bird+house");
        browser.Sees("[data-testid=trace]", "0.8 × 0.6 × 1");
        browser.Sees("[data-testid=trace]", "(1 − (1 − 0.480) × (1 − 0.120)) × 100");
        browser.Press("?");
        browser.Sees("dialog", "Set as lead");
        browser.Press(Keys.Escape);
        browser.Waits("the sheet gone", () => browser.All("dialog").Count == 0);
        browser.Chord(Keys.Control, "k");
        browser.Press("bat box", Keys.ArrowDown, Keys.ArrowUp, Keys.Enter);
        browser.Waits("the bat box", () => browser.Address.StartsWith("/3/", StringComparison.Ordinal));
        browser.Go("/1/hedgerow-fair-us/dig?term=nest+box");
        browser.Sees("[data-testid=detail]", "How this is worked out");
        browser.Click("[data-testid=headroom] summary");
        browser.Sees("[data-testid=detail]", "Typical for the");
        browser.ClickText("Show 30 months as a table");
        browser.Waits("thirty months", () => browser.All("[data-testid=detail] table.num tbody tr").Count == 30);
        Assert.Empty(browser.Complaints());
    }

    [Fact]
    public void Target_terms_typed_beside_the_text_become_picks_and_the_lead_and_the_search_leads_anywhere()
    {
        using var shop = new RunningShop(demo: false, connected: true);
        using var browser = new Browser(shop);
        browser.Go("/");
        browser.Sees("Add your first product");
        browser.Press("Owl box", Keys.Tab, "owl box", Keys.Tab, " ", Keys.ArrowDown, Keys.Enter);
        browser.Waits("the first search", () => browser.Address.Contains("/dig"));

        // Three target terms are picks, and the first is the lead, with one box and one key.
        browser.AltShift("3");
        browser.Sees("Set a lead");
        browser.AltShift("t");
        IsInBox();
        browser.Press("barn owl box, owl nesting box; owl house");
        browser.Chord(Keys.Shift, Keys.Enter);
        browser.Sees("[data-testid=toast]", "Set “barn owl box” as lead");
        browser.Waits("three picks", () => browser.All(".side [role=row][data-id]").Count == 3);
        Assert.Equal("", browser.Run("return document.activeElement.value"));

        // The search leads to any screen from any, and does what a key does.
        browser.Press(Keys.Escape);
        browser.Chord(Keys.Control, "k");
        browser.Press("pick", Keys.Enter);
        browser.Waits("Pick", () => browser.Address.EndsWith("/pick", StringComparison.Ordinal));
        browser.Sees("[role=row][data-id='barn owl box']", "lead");
        browser.Press("/");
        IsInBox();
        browser.Press("wren house", Keys.Enter);
        browser.Sees("[role=row][data-id='wren house']", "wren house");
        browser.AltShift("9");
        browser.Sees("[aria-label=Shop] .active", "Listings");
        browser.Chord(Keys.Control, "k");
        browser.Press("history", Keys.Enter);
        browser.Sees("dialog", "Picked “wren house”");
        browser.Press(Keys.Escape);
        browser.ClickText("Back to listing");
        browser.Waits("where one was", () => browser.Address.EndsWith("/pick", StringComparison.Ordinal));
        Assert.Empty(browser.Complaints());

        void IsInBox() =>
            browser.Waits(
                "the box for target terms",
                () => (string?)browser.Run("return document.activeElement.getAttribute('aria-label') ?? ''") == "Terms to pick"
            );
    }

    [Fact]
    public void Sources_stand_side_by_side_and_a_dig_can_be_seen_as_a_grid_and_a_scatter()
    {
        using var browser = new Browser(demo.Shop);
        browser.Go("/2/longbarrow-us/dig?term=bird+bath");
        browser.Waits(
            "all of it found",
            () => browser.All("[data-testid=digging]").Count == 0 && browser.All("[role=row][data-id='bird bath']").Count == 1
        );
        browser.Sees("[role=row][data-id='bird bath']", "#1 · ");
        browser.ClickText("Grid");
        browser.Sees("[data-testid=grid]", "copper");
        browser.Press("p"); // the first cell
        browser.Sees("[data-testid=toast]", "Picked");
        browser.Press("u");
        browser.Press("s");
        browser.Sees("[data-testid=scatter]", "have both numbers");
        browser.Press(Keys.ArrowUp, " ", Keys.ArrowDown, Keys.ArrowLeft, " ");
        browser.Sees("[data-testid=marked]", "2 selected");
        browser.Press("p");
        browser.Sees("[data-testid=toast]", "Picked 2 terms");
        browser.Press("u", "s");
        // Nobody searches for any word like it: they are under other meanings.
        browser.Click("input[name=alike]");
        browser.Click("input[name=rare]");
        browser.Press("f", "basin", Keys.Enter);
        browser.Waits("a word alike", () => Terms(browser).Any(t => t.Contains("basin")));
        Assert.Empty(browser.Complaints());
    }

    [Fact]
    public void One_term_is_judged_corrected_and_taken_back_by_key()
    {
        using var browser = new Browser(demo.Shop);
        browser.Go("/3/longbarrow-us/dig?term=gray+bird+house");
        browser.Sees("[data-testid=shape]", "Publish by");
        browser.Sees("[data-testid=family]", "gray birdhouse");
        browser.Sees("[data-testid=seen]", "free shipping");
        browser.ClickText("Other countries and web search");
        browser.Sees("[data-testid=countries]", "grey bird");
        browser.Press("c");
        browser.Find("[data-testid=correct]");
        browser.Chord(Keys.Control, "a");
        browser.Press("4321", Keys.Enter);
        browser.Sees("[data-testid=toast]", "Corrected “gray bird house”");
        browser.Sees("[role=row][data-id='gray bird house']", "4.3k");
        browser.ClickText("Undo");
        browser.Waits("the old number", () => !browser.Text("[role=row][data-id='gray bird house']").Contains("4.3k"));
        browser.Press("q");
        browser.Waits("title queries", () => browser.Clipboard().Contains("intitle:\"gray bird house\""));
        Assert.Empty(browser.Complaints());
    }

    [Fact]
    public void A_file_is_imported_by_key_with_its_bad_rows_told_and_filters_are_kept()
    {
        using var browser = new Browser(demo.Shop);
        var file = Path.Combine(demo.Shop.Folder, "terms.csv");
        File.WriteAllText(
            file,
            "Keyword;Monthly volume;Competition\nkingfisher mug;1.300;120\nkingfisher print;viele;9\nkingfisher tea towel;12,1k;< 10\n"
        );
        browser.Go("/5/overprint-lane-us/dig");
        browser.Find("[role=row][data-id]");
        browser.Press("i");
        browser.Find("input[type=file]").SendKeys(file);
        browser.Sees("[data-testid=read-as]", "1,300 searches/mo, 120 competing listings");
        browser.Sees("[data-testid=read-as]", "Row 3: “viele” in column 2");
        browser.Chord(Keys.Control, Keys.Enter);
        browser.Sees("[data-testid=imported]", "2 terms added.");
        browser.Press(Keys.Enter);
        browser.Waits("the shelf", () => browser.Address.Contains("from=shelf"));
        browser.Press("f", "kingfisher", Keys.Enter);
        browser.Waits("what was imported", () => Terms(browser).SequenceEqual(["kingfisher tea towel", "kingfisher mug"]));
        browser.Run(
            "const s = document.querySelector('[aria-label=\"Saved filters\"]'); s.value = 'name'; s.dispatchEvent(new Event('change', { bubbles: true }))"
        );
        browser.Press("Kingfishers", Keys.Enter);
        browser.Sees("[data-testid=toast]", "Saved the filters as “Kingfishers”");
        browser.ClickText("Clear filters");
        browser.Waits("all of the shelf", () => Terms(browser).Length > 5);
        Assert.Empty(browser.Complaints());
    }

    [Fact]
    public void Picks_are_marked_woven_folded_and_changed_together()
    {
        using var browser = new Browser(demo.Shop);
        browser.Go("/5/overprint-lane-us/pick");
        browser.Sees("[role=row]", "heron shirt");
        browser.Press(" ", Keys.ArrowDown, " ");
        browser.Sees("[data-testid=woven]", "heron shirt bird shirt");
        browser.Press("w");
        browser.Sees("[data-testid=toast]", "Picked “heron shirt bird shirt”");
        browser.Press("2", "g");
        browser.Waits(
            "both changed",
            () => browser.All(".grid-row.marked").Count(r => r.Text.Contains("good") && r.Text.Contains("tags")) == 2
        );
        browser.Press("u", "u", "u", Keys.Escape);
        browser.Waits("all taken back", () => browser.All(".grid-row").Count(r => r.Text.Contains("heron shirt bird shirt")) == 0);

        // Facts: what a pick says and they lack is added with one press.
        browser.Go("/2/hedgerow-fair-us/pick?at=glass+bird+feeder");
        browser.Sees("[data-testid=claims]", "“glass” isn’t in this product’s facts (material)");
        browser.Press("f");
        browser.ClickText("Add to facts");
        browser.Sees("[data-testid=toast]", "Changed the facts");
        browser.Waits("no pick that claims it", () => !browser.Text("[aria-label=Picks]").Contains("not in facts: glass"));
        browser.Press("u");
        browser.Sees("[aria-label=Picks]", "not in facts: glass");
        browser.Press("i");
        browser.Sees("[data-testid=ideas]", "Product ideas");

        // Families as one row, opened and closed by arrows.
        browser.Go("/1/hedgerow-fair-us/pick?families=1&at=bird+house");
        browser.Sees("[role=row][data-id='bird house']", "4 variants");
        browser.Press(Keys.ArrowRight);
        browser.Waits("the family open", () => browser.All("[role=row][data-id='birdhouses']").Count == 1);
        browser.Press(Keys.ArrowLeft);
        browser.Waits("and closed", () => browser.All("[role=row][data-id='birdhouses']").Count == 0);
        browser.Press("s");
        browser.Sees("[data-testid=language]", "casa para pájaros de cedro");
        browser.ClickText("with searches");
        browser.Sees("[data-testid=toast]", "Picked");
        browser.Press("u");
        Assert.Empty(browser.Complaints());
    }

    [Fact]
    public void What_is_avoided_with_a_reason_is_marked_in_the_copy_of_another_product()
    {
        using var browser = new Browser(demo.Shop);
        browser.Go("/4/hedgerow-fair-us/dig?term=bird+print");
        browser.Sees("[role=row]", "bird print");
        browser.Press("x");
        browser.Sees("aside", "Reason (all texts of the shop are checked for it)");
        browser.Press("n", "not our word", Keys.Enter);
        browser.Sees("[data-testid=toast]", "Changed the note on “bird print”");
        browser.Sees("[data-testid=pocket]", "Pocket");
        browser.Go("/3/hedgerow-fair-us/write");
        browser.Write("Description", "A bat box beside a bird print.");
        browser.Sees("[data-testid=field-findings]", "“bird print” is on your avoid list (not our word)");
        browser.Waits("a double rust line", () => browser.All(".under .avoided").Count == 1);
        browser.Write("Description", "A bat box.");
        browser.Waits("no more", () => !browser.Text("[data-testid=sheet]").Contains("“bird print” is on your avoid list"));
        browser.Sees("[data-testid=save-state]", "Saved automatically");
        Assert.Empty(browser.Complaints());
    }

    [Fact]
    public void A_product_begins_on_another_platform_from_the_market_list()
    {
        using var browser = new Browser(demo.Shop);
        browser.Go("/6/marsh-and-moor-us/pick");
        browser.Sees("isn’t on Marsh & Moor yet");
        browser.ClickText("Create listing");
        // The lead of its page of the web shop is a pick of the product, on every platform.
        browser.Sees("h1", "1 pick, no search numbers: each pick counts the same");
        Assert.Empty(browser.Complaints());
    }

    private static void PickNamed(Browser browser, string term)
    {
        browser.Write("Contains", term);
        browser.Press(Keys.Enter);
        browser.Click($"[data-id='{term}']");
        browser.Press("p");
        browser.Sees("[data-testid=toast]", $"Picked “{term}”");
        browser.Write("Contains", "");
        browser.Press(Keys.Enter);
    }

    private static string[] Terms(Browser browser) =>
        [
            .. (
                (IEnumerable<object>)
                    browser.Run("return [...document.querySelectorAll('[data-testid=rows] [role=row][data-id]')].map(e => e.dataset.id)")!
            ).Select(t => (string)t),
        ];

    private static double[] Numbers(Browser browser, int column) =>
        [
            .. browser
                .Texts($"[data-testid=rows] [role=row] [role=gridcell]:nth-child({column})")
                .Take(10)
                .Select(t => double.TryParse(t, out var n) ? n : -1),
        ];

    private static bool Falls(double[] numbers) =>
        numbers.Length > 5 && numbers.Zip(numbers.Skip(1)).All(p => p.First >= p.Second) && numbers[0] > numbers[^1];
}
