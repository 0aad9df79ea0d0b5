using OpenQA.Selenium;

namespace TinRabbit.Browser.Tests;

/// <summary>Tables of terms: the same columns, keys and menu on every screen, and a term placed where it was seen missing, by keyboard.</summary>
[Collection("browser")]
public sealed class TermTableTests(DemoShop demo) : IClassFixture<DemoShop>
{
    [Fact]
    public void Columns_are_chosen_sorted_copied_and_saved_as_a_set_that_other_tables_take()
    {
        using var browser = new Browser(demo.Shop);
        browser.Go("/2/hedgerow-fair-us/dig?term=bird+feeder");
        browser.Sees("[role=row]", "bird feeder");
        browser.Chord(Keys.Shift, "c");
        browser.Labelled("Name of the set");
        Turn(browser, "Shape");
        Turn(browser, "12 months");
        browser.Labelled("Name of the set").SendKeys("What grows" + Keys.Enter);
        browser.Sees("dialog", "What grows");
        browser.Press(Keys.Escape);
        browser.Sees("[role=columnheader]", "12 months");
        browser.ClickText("12 months");
        browser.Waits(
            "the one that grew most first",
            () => Changes(browser) is { Length: > 5 } all && all.SequenceEqual(all.OrderDescending())
        );

        // The row one is on, and those that are selected, as a table.
        browser.Click("[role=row][data-id]");
        browser.Chord(Keys.Control, "c");
        browser.Waits(
            "the row with its heading",
            () =>
                browser.Clipboard().Split('\n') is [var heads, var row]
                && heads.StartsWith("Term\t", StringComparison.Ordinal)
                && row.Contains('\t')
        );

        // The set in another table.
        browser.AltShift("2");
        browser.Sees("[role=row][data-id]", "feeder");
        browser.Chord(Keys.Shift, "c");
        browser.ClickText("What grows");
        browser.Press(Keys.Escape);
        browser.Sees("[role=columnheader]", "12 months");
        Assert.DoesNotContain(browser.Texts("[role=columnheader]"), t => t.StartsWith("Grip", StringComparison.Ordinal));
        Assert.Empty(browser.Complaints());
    }

    [Fact]
    public void A_term_is_given_a_fit_a_home_and_a_place_in_the_text_by_the_same_keys_on_every_screen()
    {
        using var browser = new Browser(demo.Shop);
        browser.Go("/1/hedgerow-fair-us/weigh?at=birdhouse");
        browser.Waits("the pick", () => browser.All("[role=row][data-id=birdhouse][aria-current=true]").Count == 1);

        // The listing has “bird house” alone: what putting “birdhouse” in gains is shown before it is done.
        browser.Press("+");
        browser.Sees("[data-testid=placed]", "Birdhouse");
        browser.Press(Keys.Enter);
        browser.Sees("[data-testid=toast]", "Added “birdhouse”");
        browser.Waits("its grade", () => browser.All("[role=row][data-id=birdhouse] svg[aria-label='Word missing']").Count == 0);
        browser.AltShift("3");
        browser.Waits("the title with it", () => browser.Value("Title").Contains("Birdhouse", StringComparison.Ordinal));
        browser.Run("document.activeElement.blur()");
        browser.Press("u");
        browser.Waits("the title as it was", () => !browser.Value("Title").Contains("Birdhouse", StringComparison.Ordinal));

        // Beside the text, and where it was checked, the keys are those of Pick.
        browser.Run("document.querySelector('.side [role=row][data-id=birdhouse]').click()");
        browser.Press("3");
        browser.Sees("[data-testid=toast]", "stretch");
        browser.AltShift("5");
        browser.Sees("[data-testid=found-of]", "checked");
        browser.AltShift("2");
        browser.Waits("its fit in Pick", () => browser.All("[role=row][data-id=birdhouse]").Any(r => r.Text.Contains("stretch")));
        Assert.Empty(browser.Complaints());
    }

    [Fact]
    public void A_word_that_stands_nowhere_is_put_in_by_key_and_the_list_finds_listings_by_what_they_lack()
    {
        using var browser = new Browser(demo.Shop);
        browser.Go("/1/hedgerow-fair-us/write?side=words&word=kit");
        browser.Waits("the word", () => browser.All("[role=row][data-id=kit][aria-current=true]").Any(r => r.Text.Contains("nowhere")));
        browser.Sees("[data-testid=words]", "bird house kit");
        browser.Click("[role=row][data-id=kit]");
        browser.Press("+");
        browser.Sees("[data-testid=placed]", "kit");
        browser.Press(Keys.Enter);
        browser.Waits("where it stands", () => browser.All("[role=row][data-id=kit]").Any(r => !r.Text.Contains("nowhere")));
        browser.Run("document.activeElement.blur()");
        browser.Press("u");
        browser.Waits("nowhere again", () => browser.All("[role=row][data-id=kit]").Any(r => r.Text.Contains("nowhere")));

        browser.Go("/listings");
        browser.Waits("all weighed", () => browser.Text("h1").Contains("lose"));
        browser.Waits(
            "the kinds of findings",
            () =>
                (bool)
                    browser.Run(
                        "return [...document.querySelector('[aria-label=Finding]').options].some(o => o.text.startsWith('Tags unused'))"
                    )!
        );
        var all = browser.All("[role=row][data-id]").Count;
        browser.Run(
            """
            const select = document.querySelector('[aria-label=Finding]');
            const option = [...select.options].find(o => o.text.startsWith('Tags unused'));
            Object.getOwnPropertyDescriptor(HTMLSelectElement.prototype, 'value').set.call(select, option.value);
            select.dispatchEvent(new Event('change', { bubbles: true }));
            """
        );
        browser.Waits("those whose tags are unused", () => browser.All("[role=row][data-id]").Count is > 0 and var some && some < all);
        Assert.Empty(browser.Complaints());
    }

    [Fact]
    public void What_comes_next_is_done_put_off_and_taken_back_by_key()
    {
        using var browser = new Browser(demo.Shop);
        browser.Go("/1/hedgerow-fair-us/write");
        browser.Sees("[data-testid=next]", "grip)");
        var title = browser.Value("Title");
        var step = browser.Text("[data-testid=next]");
        var grip = browser.Text("[data-testid=grip]");
        browser.AltShift("j");
        browser.Sees("[data-testid=toast]", "Applied");
        browser.Waits("another step", () => browser.Text("[data-testid=next]") is var now && now != step && now.Length > 10);
        browser.Waits("a firmer grip", () => browser.Text("[data-testid=grip]") != grip);
        browser.Run("document.activeElement.blur()");
        browser.Press("u");
        browser.Waits("the text as it was", () => browser.Value("Title") == title && browser.Text("[data-testid=next]") == step);
        browser.ClickText("Not now");
        browser.Waits("the step after it", () => browser.Text("[data-testid=next]") != step);
        Assert.Empty(browser.Complaints());
    }

    // What the column of twelve months shows, in percent.
    private static int[] Changes(Browser browser)
    {
        var at = browser.Texts("[role=columnheader]").ToList().FindIndex(t => t.StartsWith("12 months", StringComparison.Ordinal)) + 1;
        return
        [
            .. browser
                .Texts($"[role=row][data-id] > [role=gridcell]:nth-child({at})")
                .Where(t => t.EndsWith('%'))
                .Select(t =>
                    int.Parse(
                        t.TrimEnd('%').Replace("−", "-").Replace(",", "").TrimStart('+'),
                        System.Globalization.CultureInfo.InvariantCulture
                    )
                ),
        ];
    }

    private static void Turn(Browser browser, string column)
    {
        browser.Run(
            $"[...document.querySelectorAll('dialog label')].find(l => l.textContent.trim() === '{column}').querySelector('input').focus()"
        );
        browser.Press(" ");
    }
}
