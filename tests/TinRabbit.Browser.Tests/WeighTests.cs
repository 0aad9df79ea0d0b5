using OpenQA.Selenium;

namespace TinRabbit.Browser.Tests;

/// <summary>What to do next about a listing, and doing it.</summary>
public sealed class WeighTests
{
    [Fact]
    public void Moves_are_walked_applied_and_taken_back_by_key_and_what_was_applied_is_saved()
    {
        using var shop = new RunningShop(demo: true);
        using var browser = new Browser(shop);
        browser.Go("/1/hedgerow-fair-us/weigh");
        browser.Sees("[data-testid=moves]", "Start the title with “birdhouse”");
        Assert.Equal(12, browser.All("[data-testid=move]").Count);
        var before = Grip(browser);
        browser.Press(Keys.Enter);
        browser.Sees("[data-testid=toast]", "Applied: Start the title with “birdhouse”");
        browser.Waits("a higher grip", () => Grip(browser) > before);
        browser.Waits("another list", () => !browser.Text("[data-testid=moves]").Contains("Start the title with “birdhouse”"));
        var after = Grip(browser);

        // The second of the list, and back.
        browser.Press(Keys.ArrowDown, Keys.Enter);
        browser.Waits("a higher grip still", () => Grip(browser) > after);
        browser.Press("u");
        browser.Sees("[data-testid=toast]", "Undone: Applied");
        browser.Waits("the grip before it", () => Grip(browser) == after);

        // It is the same text in Write, and the one before is a version.
        browser.AltShift("3");
        browser.Waits(
            "the title",
            () =>
                browser.Labelled("Title").GetDomProperty("value") is { } title
                && title.StartsWith("Birdhouse, cedar", StringComparison.Ordinal)
        );
        browser.AltShift("v");
        browser.Sees("[data-testid=versions]", "before a move");
        browser.Reload();
        browser.AltShift("4");
        browser.Waits("the same grip after a reload", () => Grip(browser) == after);
        Assert.Empty(browser.Complaints());
    }

    private static int Grip(Browser browser) => int.TryParse(browser.Text("[data-testid=grip]"), out var grip) ? grip : -1;
}
