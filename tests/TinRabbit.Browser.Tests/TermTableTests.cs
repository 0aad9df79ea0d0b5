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
