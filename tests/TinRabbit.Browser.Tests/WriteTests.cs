using OpenQA.Selenium;

namespace TinRabbit.Browser.Tests;

/// <summary>Fills, findings, takes, versions, sending and platforms, as a seller meets them, mostly by key.</summary>
[Collection("browser")] // a server and a browser at a time: side by side they keep each other waiting
public sealed class WriteTests(DemoShop demo) : IClassFixture<DemoShop>
{
    private static string Box(Browser browser, string label) => browser.Value(label);

    [Fact]
    public void Backend_words_are_filled_in_part_and_undone()
    {
        using var browser = new Browser(demo.Shop);
        browser.Go("/1/longbarrow-us/write");
        browser.Sees("[data-testid=sheet]", "Backend keywords");
        var before = Box(browser, "Backend keywords");
        browser.Labelled("Backend keywords").Click();
        browser.AltShift("f");
        browser.Sees("[data-testid=fill]", "of the best possible");
        var pieces = browser.Texts("[data-testid=fill] .choice");
        Assert.NotEmpty(pieces);
        browser.Press(" ");
        browser.Waits("the first piece left out", () => browser.All("[data-testid=fill] .choice[aria-pressed=false]").Count == 1);
        browser.Press(Keys.Enter);
        browser.Sees("[data-testid=toast]", "Filled Backend keywords");
        Assert.Equal($"{before} {string.Join(' ', pieces.Skip(1))}".Trim(), Box(browser, "Backend keywords"));
        browser.ClickText("Undo");
        browser.Waits("what stood there before", () => Box(browser, "Backend keywords") == before);
        Assert.Empty(browser.Complaints());
    }

    [Fact]
    public void A_title_is_filled_its_takes_lie_side_by_side_and_the_old_one_comes_back()
    {
        using var browser = new Browser(demo.Shop);
        browser.Go("/2/hedgerow-fair-us/write");
        browser.Waits("the title", () => Box(browser, "Title") == "Window feeder clear");
        browser.Labelled("Title").Click();
        browser.AltShift("f");
        browser.Sees("[data-testid=fill]", "Use this title");
        var first = browser.Texts("[data-testid=fill] .take div")[0];
        browser.Press(Keys.Enter);
        browser.Waits("the best take in the title", () => Box(browser, "Title") == first);
        Assert.StartsWith("Window bird feeder", first);
        browser.AltShift("k");
        browser.Sees("[data-testid=takes]", "Window feeder clear");
        browser.Waits("two takes", () => browser.All("[data-testid=takes] .take").Count >= 2);
        foreach (var box in browser.All("[data-testid=takes] input[type=checkbox]").Take(2))
            box.Click();
        browser.Sees("[data-testid=side-by-side]", "Grip");
        browser.Run(
            "[...document.querySelectorAll('[data-testid=takes] .take')].find(t => t.textContent.includes('Window feeder clear')).querySelector('button').click()"
        );
        browser.Waits("the old title", () => Box(browser, "Title") == "Window feeder clear");
        browser.Sees("[data-testid=takes]", first);
        browser.Sees("[data-testid=save-state]", "Saved automatically");
        Assert.Empty(browser.Complaints());
    }

    [Fact]
    public void A_finding_is_fixed_by_one_key_and_another_put_aside()
    {
        using var browser = new Browser(demo.Shop);
        browser.Go("/3/hedgerow-fair-us/write");
        browser.Write("Tags 1", "bat box");
        browser.Write("Tags 3", "bat box");
        browser.Sees("[data-testid=field-findings]", "is also Tags 1");
        browser.Labelled("Tags 3").Click();
        browser.Press(Keys.F8);
        browser.Sees("[data-testid=findings]", "Most important first");
        browser.Run("[...document.querySelectorAll('[data-finding=same-tag] button')].find(b => b.textContent.includes('Remove')).click()");
        browser.Waits(
            "the doubled tag gone",
            () => !browser.Text("[data-testid=sheet]").Contains("is also Tags 1") && Box(browser, "Tags 3") != "bat box"
        );
        browser.Waits("a finding to put aside", () => browser.All("[data-testid=findings] [data-finding=description-short]").Count == 1);
        browser.Run("[...document.querySelectorAll('[data-testid=findings] [data-finding=description-short] button')].at(-1).click()");
        browser.Sees("[data-testid=findings] h3", "Dismissed");
        browser.Reload();
        browser.Sees("[data-testid=findings] h3", "Dismissed");
        browser.Labelled("Description").SendKeys(" Bats.");
        browser.Waits("it comes back with another text", () => !browser.All("[data-testid=findings] h3").Any(h => h.Text == "Dismissed"));
        Assert.Empty(browser.Complaints());
    }

    [Fact]
    public void What_must_not_be_said_stands_in_rust_above_all()
    {
        using var browser = new Browser(demo.Shop);
        browser.Go("/4/hedgerow-fair-us/write");
        browser.Write("Tags 5", "bluebird house");
        browser.Sees("[data-testid=field-findings]", "is on your avoid list");
        Assert.NotEmpty(browser.All(".under .avoided"));
        browser.ClickText("Remove this phrase");
        browser.Waits("the phrase gone", () => Box(browser, "Tags 5") == "");
    }

    [Fact]
    public void Loose_words_stand_once_and_a_long_tag_is_split_by_key()
    {
        using var browser = new Browser(demo.Shop);
        browser.Go("/3/longbarrow-us/write");
        browser.Write("Backend keywords", "roost bat roost cave ");
        Assert.Equal("roost bat cave ", Box(browser, "Backend keywords"));
        browser.Go("/4/hedgerow-fair-us/write");
        browser.Write("Tags 2", "watercolour chart of garden birds");
        browser.Sees("[data-testid=sheet]", "too long");
        browser.Labelled("Tags 2").Click();
        browser.AltShift("x");
        browser.Waits("two tags", () => Box(browser, "Tags 2") == "watercolour chart of" && Box(browser, "Tags 3") == "garden birds");
    }

    [Fact]
    public void A_deeper_category_says_what_it_opens_and_the_attributes_appear()
    {
        using var browser = new Browser(demo.Shop);
        browser.Go("/1/longbarrow-us/write");
        browser.Sees("[data-testid=field-findings]", "has more specific categories");
        Assert.Empty(browser.All("[aria-label='Attributes: Entrance']"));
        var deeper = browser.Labelled("Category, level 3");
        deeper.SendKeys("Bird houses");
        browser.Find("[aria-label='Attributes: Entrance']").SendKeys("28 mm");
        browser.Waits(
            "no deeper category is asked for",
            () => !browser.Text("[data-testid=sheet]").Contains("has more specific categories")
        );
        browser.Sees("[data-testid=save-state]", "Saved automatically");
    }

    [Fact]
    public void A_version_is_named_compared_word_by_word_and_brought_back()
    {
        using var browser = new Browser(demo.Shop);
        browser.Go("/5/overprint-lane-us/write");
        browser.Sees("[data-testid=sheet]", "Brand line");
        var title = Box(browser, "Title");
        browser.AltShift("v");
        browser.Labelled("Name of the new version").SendKeys("Before the change" + Keys.Enter);
        browser.Sees("[data-testid=versions]", "Before the change");
        browser.Write("Title", title + " heronry");
        browser.Sees("[data-testid=save-state]", "Saved automatically");
        browser.ClickText("Compare");
        browser.Sees("[data-testid=changed-field] ins", "heronry");
        browser.ClickText("Restore");
        browser.Waits("the title as it was", () => Box(browser, "Title") == title);
        browser.Sees("[data-testid=toast]", "Restored the version");
    }

    [Fact]
    public void The_title_is_read_and_put_in_another_order_by_one_click()
    {
        using var browser = new Browser(demo.Shop);
        browser.Go("/4/longbarrow-us/write");
        browser.Write("Title", "House for birds, cedar bird");
        browser.AltShift("r");
        browser.Sees("[data-testid=reading]", "cedar bird house");
        browser.Run(
            "[...document.querySelectorAll('[data-testid=reading] .take')].find(r => /cedar bird house.*Use this order/.test(r.textContent)).querySelector('button').click()"
        );
        browser.Waits("the words in that order", () => Box(browser, "Title").StartsWith("Cedar bird house", StringComparison.Ordinal));
    }

    [Fact]
    public void A_listing_is_sent_and_the_screen_says_when_it_is_noticed()
    {
        using var browser = new Browser(demo.Shop);
        browser.Go("/6/chalk-shelf-us/write?side=send");
        browser.ClickText("Send listing");
        browser.Sees("[data-testid=toast]", "Sent to the simulated Chalk Shelf (sample data)");
        browser.Waits("a row for it", () => browser.All("[data-testid=send] tbody tr").Count == 1);
    }

    [Fact]
    public void A_platform_is_begun_from_the_nearest_kind_and_says_what_no_longer_fits()
    {
        using var shop = new RunningShop(demo: true);
        using var browser = new Browser(shop);
        browser.Go("/platforms?id=hedgerow-fair");
        browser.Sees("[data-testid=profile]", "Search treats as equal");
        browser.ClickText("Duplicate Hedgerow Fair");
        browser.Press("Stall of mine", Keys.Enter);
        browser.Waits("the copy open", () => browser.Address.Contains("id=stall-of-mine") && Box(browser, "Name") == "Stall of mine");
        browser.Write("Limit of title", "0");
        browser.Sees("[data-testid=problems]", "Title limit");
        browser.Write("Limit of title", "80");
        browser.Waits("nothing wrong", () => browser.All("[data-testid=problems]").Count == 0);
        browser.Chord(Keys.Control, "s");
        browser.Sees("[data-testid=toast]", "Changed the platform “Stall of mine”");

        // A listing there, too long for the next limit.
        browser.Go("/1/stall-of-mine-us/write");
        browser.ClickText("Create listing");
        browser.Write("Title", "A cedar nest box for the smallest birds in the garden");
        browser.Sees("[data-testid=sheet]", "53 of 80");
        browser.Sees("[data-testid=save-state]", "Saved automatically");
        browser.Go("/platforms?id=stall-of-mine");
        browser.Write("Limit of title", "40");
        browser.Sees("[data-testid=unfit]", "Title is 13 characters too long");
        Assert.DoesNotContain(browser.Complaints(), c => !c.Contains("/api/platforms/check"));
    }

    // Where the keys of a list beside the work have brought one.
    private static string Cursor(Browser browser, string list) =>
        browser.Texts($"[data-testid={list}] .take.cursor").FirstOrDefault() ?? "";

    // Walks down a list to what says this, from the top again where it moved up meanwhile.
    private static void WalkTo(Browser browser, string list, string text) =>
        browser.Waits(
            $"the cursor on \"{text}\"",
            () =>
            {
                var at = Cursor(browser, list);
                if (at.Contains(text, StringComparison.Ordinal))
                    return true;
                browser.Press(Keys.ArrowDown);
                if (Cursor(browser, list) == at)
                    browser.Run($"document.querySelector('[data-testid={list}] [data-walked]')?.click()");
                return false;
            }
        );

    [Fact]
    public void Takes_are_walked_used_and_laid_side_by_side_by_key()
    {
        using var browser = new Browser(demo.Shop);
        browser.Go("/6/hedgerow-fair-us/write");
        browser.ClickText("Create listing");
        browser.Write("Title", "Bird count sheets");
        browser.AltShift("k");
        browser.Sees("[data-testid=takes]", "Save this title");
        browser.Press("k");
        browser.Waits("one take", () => browser.All("[data-testid=takes] .take").Count == 1);
        browser.Write("Title", "Garden bird count sheets");
        browser.AltShift("p");
        browser.AltShift("k");
        browser.Waits("the first take under the cursor", () => Cursor(browser, "takes").Length > 0);
        browser.Press("k");
        browser.Waits("two takes", () => browser.All("[data-testid=takes] .take").Count == 2);
        browser.Press(" ", Keys.ArrowDown, " ");
        browser.Sees("[data-testid=side-by-side]", "Grip");
        WalkTo(browser, "takes", "Bird count sheets\n");
        browser.Press(Keys.Enter);
        browser.Waits("that take in the title", () => Box(browser, "Title") == "Bird count sheets");
        browser.Waits("both kept", () => browser.All("[data-testid=takes] .take").Count == 2);
        browser.Press(Keys.Escape);
        browser.Press(Keys.End, "!");
        browser.Waits("one writes on where one was", () => Box(browser, "Title") == "Bird count sheets!");
        Assert.Empty(browser.Complaints());
    }

    [Fact]
    public void A_fill_says_of_each_take_and_of_each_part_what_it_opens_and_loses()
    {
        using var browser = new Browser(demo.Shop);
        browser.Go("/1/hedgerow-fair-us/write");
        browser.Labelled("Title").Click();
        browser.AltShift("f");
        browser.Sees("[data-testid=fill-effect]", "→");
        browser.Sees("[data-testid=fill]", "Gains");
        var first = browser.Text("[data-testid=fill-effect]");
        browser.Press(Keys.ArrowDown, Keys.ArrowDown);
        browser.Waits("another effect for another take", () => browser.Text("[data-testid=fill-effect]") != first);
        browser.Press(Keys.Escape);
        browser.Labelled("Tags 1").Click();
        browser.AltShift("f");
        browser.Sees("[data-testid=fill]", "Suggested for Tags");
        browser.Sees("[data-testid=fill]", "Space used: 12 of 12");
        browser.Press(" ");
        browser.Sees("[data-testid=fill]", "Space used: 11 of 12");
        browser.Press(Keys.Escape);
        Assert.Empty(browser.All("[data-testid=fill]"));
        Assert.Empty(browser.Complaints());
    }

    [Fact]
    public void Versions_are_walked_named_compared_and_brought_back_by_key()
    {
        using var browser = new Browser(demo.Shop);
        browser.Go("/6/overprint-lane-us/write?side=versions");
        browser.ClickText("Create listing");
        browser.Sees("[data-testid=versions]", "Save version");
        browser.Labelled("Name of the new version").SendKeys(Keys.Enter);
        browser.Sees("[data-testid=toast]", "Nothing to save");
        const string title = "Garden bird wall chart";
        browser.Write("Title", title);
        browser.Sees("[data-testid=save-state]", "Saved automatically");
        browser.Labelled("Name of the new version").SendKeys(Keys.Enter);
        browser.Waits("a version", () => browser.All("[data-testid=versions] .take").Count == 1);
        browser.Write("Title", title + " for the wall");
        browser.Sees("[data-testid=save-state]", "Saved automatically");
        browser.AltShift("p");
        browser.AltShift("v");
        browser.Waits("the versions", () => Cursor(browser, "versions").Length > 0);
        browser.Press(Keys.F2);
        browser.Labelled("Name of the version").SendKeys("Short one" + Keys.Enter);
        browser.Sees("[data-testid=versions]", "Short one");
        browser.Press(Keys.Enter);
        browser.Sees("[data-testid=changed-field] ins", "for the wall");
        browser.Press("r");
        browser.Waits("the title as it was", () => Box(browser, "Title") == title);
        browser.ClickText("Undo");
        browser.Waits("and the other again", () => Box(browser, "Title") == title + " for the wall");
        Assert.Empty(browser.Complaints());
    }

    [Fact]
    public void Alt_texts_are_written_guarded_and_put_right_by_key()
    {
        using var browser = new Browser(demo.Shop);
        browser.Go("/5/overprint-lane-us/write");
        var first = Box(browser, "Alt text 1");
        browser.Write("Alt text 2", "A bluebird house in the snow" + Keys.Enter);
        browser.Sees("[data-field='$pictures'] [data-testid=field-findings]", "is on your avoid list");
        browser.Press("Folded on a chair");
        browser.Waits("a third picture", () => Box(browser, "Alt text 3") == "Folded on a chair");
        browser.Labelled("Alt text 2").Click();
        browser.Chord(Keys.Control, Keys.Enter);
        browser.Waits("the words gone", () => !Box(browser, "Alt text 2").Contains("bluebird", StringComparison.Ordinal));
        browser.ClickText("Undo");
        browser.Waits("the words back", () => Box(browser, "Alt text 2") == "A bluebird house in the snow");
        browser.Sees("[data-field='$pictures'] [data-testid=field-findings]", "is on your avoid list");
        browser.Labelled("Alt text 2").Click();
        browser.Chord(Keys.Control, Keys.Enter);
        browser.Waits("gone again", () => !Box(browser, "Alt text 2").Contains("bluebird", StringComparison.Ordinal));
        Thread.Sleep(600); // a pause, after which they are saved
        browser.Reload();
        browser.Sees("[data-testid=sheet]", "Alt text");
        Assert.Equal((first, "Folded on a chair"), (Box(browser, "Alt text 1"), Box(browser, "Alt text 3")));
        browser.Sees("[data-testid=tile]", first);
        Assert.Empty(browser.Complaints());
    }

    [Fact]
    public void Findings_are_walked_fixed_and_put_aside_in_their_list_by_key()
    {
        using var browser = new Browser(demo.Shop);
        browser.Go("/2/hedgerow-fair-us/write?side=findings");
        browser.Write("Tags 1", "bird feeder");
        browser.Write("Tags 2", "feeder bird");
        browser.Waits("the finding of it", () => browser.All("[data-testid=findings] [data-finding=tag-reordered]").Count == 1);
        browser.Find("[data-testid=findings]").Click();
        browser.WaitsForChecks();
        browser.Run("document.querySelector('[data-testid=findings]').focus()");
        WalkTo(browser, "findings", "has the same words");
        browser.Press("d");
        browser.Waits(
            "it put aside",
            () => !browser.Texts("[data-testid=findings] .take").Any(t => t.Contains("has the same words", StringComparison.Ordinal))
        );
        browser.ClickText("Undo");
        browser.Waits(
            "it brought back",
            () => browser.Texts("[data-testid=findings] .take").Any(t => t.Contains("has the same words", StringComparison.Ordinal))
        );
        browser.WaitsForChecks();
        browser.Run("document.querySelector('[data-testid=findings]').focus()");
        WalkTo(browser, "findings", "has the same words");
        browser.Press(Keys.Enter);
        browser.Waits("the tag out", () => Box(browser, "Tags 2") != "feeder bird");
        Assert.Empty(browser.Complaints());
    }

    [Fact]
    public void A_fix_loses_nothing_that_was_typed_since_the_check()
    {
        using var shop = new RunningShop(demo: true);
        using var browser = new Browser(shop);
        browser.Go("/4/hedgerow-fair-us/write");
        browser.Write("Tags 1", "bird chart");
        browser.Write("Tags 2", "chart bird");
        browser.Sees("[data-field=tags] [data-testid=field-findings]", "has the same words");
        browser.Write("Tags 5", "typed since");
        browser.Labelled("Tags 2").Click();
        browser.Chord(Keys.Control, Keys.Enter);
        browser.Sees("[data-testid=toast]", "Done");
        var tags = browser.Texts("[data-field=tags] textarea");
        Assert.Contains("typed since", tags);
        Assert.DoesNotContain("chart bird", tags);
        Assert.Contains("bird chart", tags);
    }

    [Fact]
    public void Category_and_attributes_carry_threads_like_the_rest()
    {
        using var browser = new Browser(demo.Shop);
        browser.Go("/1/hedgerow-fair-us/write");
        browser.Waits(
            "a thread under the category",
            () =>
                browser
                    .All(
                        "[data-field=category] .under .spread, [data-field=category] .under .whole, [data-field=category] .under .together"
                    )
                    .Count > 0
        );
        browser.Write("Attributes: Made from", "wooden bird house");
        browser.Waits(
            "a thread under the attribute",
            () => browser.All("[data-field=attributes] .under .whole").Any(t => t.GetAttribute("textContent") == "wooden bird house")
        );
        browser.Write("Attributes: Made from", "cedar");
        browser.Sees("[data-testid=save-state]", "Saved automatically");
    }

    [Fact]
    public void A_platforms_categories_are_typed_as_an_outline_and_open_its_attributes()
    {
        using var shop = new RunningShop(demo: true);
        using var browser = new Browser(shop);
        browser.Go("/platforms?id=hedgerow-fair");
        browser.ClickText("Duplicate Hedgerow Fair");
        browser.Press("Stall", Keys.Enter);
        browser.Waits("the copy open", () => browser.Address.Contains("id=stall") && Box(browser, "Name") == "Stall");
        browser.Run("document.querySelectorAll('[data-testid=profile] details').forEach(d => d.open = true)");
        browser.Write("Categories of Category", "Barn" + Keys.Enter + "  Owls" + Keys.Enter + "Hat");
        browser.Sees("[data-testid=profile]", "3 categories");
        browser.Labelled("Name of the new attribute").SendKeys("Perch" + Keys.Enter);
        browser.Write("Values of Perch", "rope, branch");
        browser.Run(
            "const s = document.querySelector('[aria-label=\"Category of Perch\"]'); Object.getOwnPropertyDescriptor(HTMLSelectElement.prototype, 'value').set.call(s, 'Owls'); s.dispatchEvent(new Event('change', { bubbles: true }))"
        );
        browser.Chord(Keys.Control, "s");
        browser.Sees("[data-testid=toast]", "Changed the platform “Stall”");
        browser.Go("/1/stall-us/write");
        browser.ClickText("Create listing");
        browser.Sees("[data-testid=sheet]", "Category");
        Assert.Empty(browser.All("[aria-label='Attributes: Perch']"));
        browser.Labelled("Category, level 1").SendKeys("Barn");
        browser.Labelled("Category, level 2").SendKeys("Owls");
        browser.Sees("[data-field=category]", "adds Perch");
        browser.Find("[aria-label='Attributes: Perch']").SendKeys("rope");
        browser.Sees("[data-testid=save-state]", "Saved automatically");
    }
}
