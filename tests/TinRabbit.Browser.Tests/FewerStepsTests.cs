using OpenQA.Selenium;

namespace TinRabbit.Browser.Tests;

/// <summary>What a seller does most, by keyboard: from rivals' words, results and ideas to picks and products, and one term across the shop.</summary>
[Collection("browser")]
public sealed class FewerStepsTests(DemoShop demo) : IClassFixture<DemoShop>
{
    [Fact]
    public void A_result_opens_with_its_text_and_a_term_of_it_is_picked_by_one_key()
    {
        using var browser = new Browser(demo.Shop);
        browser.Go("/2/hedgerow-fair-us/weigh?view=rivals&choose=1");
        browser.Find("[data-testid=rivals] [role=row][data-id]");
        browser.Chord(Keys.Shift, "r");
        browser.Sees("[data-testid=rival-text]", "Tags:");
        browser.Click("[data-testid=rival-text] [role=row][data-id='bird house']");
        browser.Press("p");
        browser.Sees("[data-testid=toast]", "bird house");
        browser.Sees("[data-testid=rival-text] [role=row][data-id='bird house']", "picked");
        browser.Press(Keys.Escape);
        browser.Sees("[data-testid=rivals]", "Save as rival");
        Assert.Empty(browser.Complaints());
    }

    [Fact]
    public void A_word_of_the_first_listings_is_picked_where_it_is_seen()
    {
        using var browser = new Browser(demo.Shop);
        browser.Go("/3/hedgerow-fair-us/weigh?view=top&words=title");
        browser.Sees("[data-testid=top]", "Mean rank");
        browser.Click("[data-testid=top] [role=row][data-id='bat']");
        browser.Press(Keys.ArrowDown);
        browser.Waits("another word", () => !browser.Address.Contains("at=bat&", StringComparison.Ordinal));
        var word = browser.Text("[data-testid=top-detail] h3");
        browser.Press("p");
        browser.Sees("[data-testid=toast]", word);
        browser.Sees("[data-testid=top] [role=row][aria-selected=true]", "picked");
        Assert.Empty(browser.Complaints());
    }

    [Fact]
    public void Results_are_judged_by_one_key_each_and_the_share_is_kept_with_the_term()
    {
        using var browser = new Browser(demo.Shop);
        browser.Go("/2/hedgerow-fair-us/dig?term=bird+feeder");
        browser.Find(".card-result img");
        browser.Run("document.querySelector('.card-result').focus()");
        browser.Press("y", "y", "n", "y");
        browser.Sees("[data-testid=like-mine]", "75% like yours (4 results judged)");
        browser.Click("[role=row][data-id='bird feeders']");
        browser.Waits("the results of another term", () => browser.All("[data-testid=like-mine]").Count == 0);
        browser.Click("[role=row][data-id='bird feeder']");
        browser.Sees("[data-testid=like-mine]", "75% like yours");
        browser.Press("u");
        browser.Sees("[data-testid=like-mine]", "67% like yours (3 results judged)");
        Assert.Empty(browser.Complaints());
    }

    [Fact]
    public void A_product_is_researched_before_it_exists_and_becomes_one_with_its_picks()
    {
        using var browser = new Browser(demo.Shop);
        browser.Go("/listings");
        browser.Find("[data-testid=listings] [role=row][data-id]");
        browser.AltShift("b");
        browser.Sees("[data-testid=passing]", "terms");
        browser.Click("[role=row][data-id='bird house']");
        browser.Press("p");
        browser.Sees("[data-testid=toast]", "bird house");
        browser.ClickText("Make it a product…");
        browser.Find("dialog input").SendKeys(Keys.Control + "a");
        browser.Find("dialog input").SendKeys("Bird bath of oak" + Keys.Enter);
        browser.Waits("its text", () => browser.Address.Contains("/write", StringComparison.Ordinal));
        browser.Sees("[data-testid=toast]", "Made “Bird bath of oak” a product");
        browser.AltShift("9");
        browser.Find("[data-testid=listings] [role=row][data-id]");
        // The list shows the rows in sight only.
        browser.Press("f");
        browser.Press("oak");
        browser.Waits(
            "it is listed",
            () => browser.Texts("[role=row][data-id]").Any(r => r.Contains("Bird bath of oak", StringComparison.Ordinal))
        );
        Assert.Empty(browser.Complaints());
    }

    [Fact]
    public void An_idea_becomes_a_product_with_picks_and_lead_by_one_key()
    {
        using var browser = new Browser(demo.Shop);
        browser.Go("/1/hedgerow-fair-us/pick?side=ideas");
        browser.Sees("[data-testid=ideas]", "Make it a product");
        var idea = browser.Text("[data-testid=ideas] h4");
        browser.Chord(Keys.Shift, "i");
        browser.Waits("its text", () => browser.Address.Contains("/write", StringComparison.Ordinal));
        browser.Sees("[data-testid=toast]", $"Made the product “{idea}”");
        browser.AltShift("2");
        browser.Find($"[role=row][data-id='{idea}'] .mark");
        Assert.Empty(browser.Complaints());
    }

    [Fact]
    public void A_term_is_followed_across_the_shop_to_the_listing_that_holds_it()
    {
        using var browser = new Browser(demo.Shop);
        browser.Go("/watch");
        browser.Chord(Keys.Shift, "4");
        browser.Sees("[data-testid=own-terms]", "terms of");
        browser.Click("[data-testid=own-terms] [role=row][data-id='bird lover gift']");
        browser.Sees("[data-testid=across]", "Wren nest box, cedar");
        browser.Press(Keys.Enter);
        browser.Press(Keys.Enter);
        browser.Waits("the listing", () => browser.Address.StartsWith("/1/hedgerow-fair-us/write", StringComparison.Ordinal));
        Assert.Empty(browser.Complaints());
    }

    [Fact]
    public void The_list_has_pages_and_what_comes_next_for_each()
    {
        using var browser = new Browser(demo.Shop);
        browser.Go("/listings?of=pages");
        browser.Waits(
            "pages alone",
            () => browser.Texts("[role=row][data-id]") is { Count: > 5 } rows && rows.All(r => r.Contains("page"))
        );
        browser.Waits(
            "what comes next",
            () =>
                browser.Texts("[role=row][data-id]")[0].Contains("Add “")
                || browser.Texts("[role=row][data-id]")[0].Contains("Fix ")
                || browser.Texts("[role=row][data-id]")[0].Contains("Start ")
                || browser.Texts("[role=row][data-id]")[0].Contains("Replace ")
        );
        browser.Click("[role=row][data-id]");
        browser.Press(Keys.Enter);
        browser.Waits("its moves", () => browser.Address.Contains("/web-us/weigh", StringComparison.Ordinal));
        Assert.Empty(browser.Complaints());
    }

    [Fact]
    public void Terms_that_are_not_found_are_listed_beside_the_text_and_a_pick_opens_what_each_field_gives()
    {
        using var browser = new Browser(demo.Shop);
        browser.Go("/1/hedgerow-fair-us/watch?show=missing");
        browser.Sees("[role=row][data-id='birdhouse']", "Not found");
        browser.Press("w");
        browser.Sees("[data-testid=listed]", "from the found check");
        var listed = browser.All("[role=row][data-id]").Count;
        Assert.InRange(listed, 1, 20);
        browser.Click("[role=row][data-id='birdhouse']");
        browser.Sees("[data-testid=gives]", "birdhouse: grip");
        browser.ClickText("Show all picks");
        browser.Waits("all picks", () => browser.All("[role=row][data-id]").Count > listed);
        Assert.Empty(browser.Complaints());
    }

    [Fact]
    public void Any_table_of_terms_is_filtered_by_key_and_shows_what_terms_earned_and_how_high_that_is()
    {
        using var browser = new Browser(demo.Shop);
        browser.Go("/1/hedgerow-fair-us/pick");
        browser.Find("[role=row][data-id='bird house']");
        browser.Chord(Keys.Shift, "c");
        foreach (var column in new[] { "Clicks", "Search level" })
            browser.Run(
                "[...document.querySelectorAll('dialog label')].find(l => l.textContent === arguments[0]).querySelector('input').click()",
                column
            );
        browser.Press(Keys.Escape);
        browser.Sees("[role=row][data-id='bird house']", "214");
        browser.Sees("[role=row][data-id='bird house']", "high");
        browser.Chord(Keys.Shift, "f");
        browser.Waits("the filter", () => (string?)browser.Run("return document.activeElement.getAttribute('aria-label')") == "Contains");
        browser.Press("house");
        browser.Waits("fewer", () => browser.All("[role=row][data-id]").All(r => r.Text.Contains("house", StringComparison.Ordinal)));
        browser.ClickText("Close the filter");
        browser.Find("[role=row][data-id='wren nest box']");
        Assert.Empty(browser.Complaints());
    }

    [Fact]
    public void A_page_is_seen_as_a_visitor_sees_it_and_a_locked_alt_text_is_not_changed()
    {
        using var browser = new Browser(demo.Shop);
        browser.Go("/9/web-us/write");
        browser.Find("[data-field]");
        browser.AltShift("o");
        browser.Waits(
            "the page",
            () =>
                browser.Run("return document.querySelector('dialog iframe')?.contentDocument?.querySelector('h1')?.textContent")
                    is string { Length: > 0 }
        );
        browser.Press(Keys.Escape);
        browser.Go("/pages?view=alt");
        browser.Sees("[data-testid=picture]", "Lock the alt text");
        browser.Press("l");
        browser.Sees("[data-testid=picture]", "Unlock the alt text");
        Assert.Equal("true", browser.Find("[data-testid=picture] textarea").GetAttribute("readonly"));
        browser.Press("u");
        browser.Waits("unlocked", () => browser.Find("[data-testid=picture] textarea").GetAttribute("readonly") is null);
        Assert.Empty(browser.Complaints());
    }
}
