using OpenQA.Selenium;

namespace TinRabbit.Browser.Tests;

/// <summary>The first ten minutes of someone who makes notebooks and sells them in a place of their own: from an empty shop, by keyboard alone.</summary>
[Collection("browser")]
public sealed class FirstMinutesTests
{
    [Fact]
    public void A_first_listing_on_ones_own_platform_by_keyboard_alone()
    {
        using var shop = new RunningShop(demo: false);
        using var browser = new Browser(shop);

        // The product, what shoppers call it, and another place that is most like Hedgerow Fair.
        browser.Go("/");
        browser.Sees("Add your first product");
        browser.Press("Linen notebook, A5", Keys.Tab, "hand bound notebook", Keys.Tab, " ");
        for (var i = 0; i < 6; i++)
            browser.Press(Keys.ArrowDown);
        browser.Sees("Most like");
        browser.Press(Keys.Tab, "Paper Lane", Keys.Tab, "Hedgerow", Keys.Tab, Keys.Enter);
        browser.Waits("the first search", () => browser.Address.Contains("/paper-lane-us/dig"));

        // The market does not know notebooks: it says so, and the next step is a key away.
        browser.Sees("[data-testid=known]", "No suggestions and no results of “hand bound notebook” known here yet");
        browser.Chord(Keys.Shift, "v");
        browser.Waits(
            "the box to paste into",
            () => (string?)browser.Run("return document.activeElement.getAttribute('aria-label') ?? ''") == "Terms to paste"
        );
        browser.Press("hand bound notebook 400", Keys.Enter, "linen notebook; 900; 120", Keys.Enter, "a5 journal; 1,300; 800");
        browser.Chord(Keys.Control, Keys.Enter);
        browser.Sees("[data-testid=guessed]", "“hand bound notebook” with 400");
        TabTo(browser, "Yes, use as searches/mo");
        browser.Press(Keys.Enter);
        TabTo(browser, "Add terms");
        browser.Press(Keys.Enter);
        browser.Sees("3 terms added");
        TabTo(browser, "Close");
        browser.Press(Keys.Enter);

        // The shelf joins in by itself. Pick all three.
        browser.Waits(
            "the shelf's own term",
            () => browser.All("[role=row][data-id='hand bound notebook']").Any(r => r.Text.Contains("400"))
        );
        browser.Press("p");
        browser.Sees("[data-testid=toast]", "Picked “hand bound notebook”");
        browser.Press("/");
        browser.Press("notebook", Keys.Enter);
        browser.Waits("the other term on the shelf", () => browser.All("[role=row][data-id='linen notebook']").Count == 1);
        Walk(browser, "linen notebook");
        browser.Press("p");
        browser.Sees("[data-testid=toast]", "Picked “linen notebook”");

        // Pick: the lead by key; the new pick's fit comes from the facts.
        browser.AltShift("2");
        browser.Sees("2 picks");
        Walk(browser, "hand bound notebook");
        browser.Press("e");
        browser.Sees("[data-testid=toast]", "Set “hand bound notebook” as lead");
        browser.Sees("[role=row][data-id='hand bound notebook']", "core");
        browser.Sees("[role=row][data-id='linen notebook']", "good");

        // Write: a required title first, then a fill, then it can be published.
        browser.AltShift("3");
        browser.Sees("[data-testid=publishable]", "required fix");
        browser.AltShift("f");
        browser.Sees("[data-testid=fill]", "Use this title");
        browser.Press(Keys.Enter);
        browser.Waits("the title", () => browser.Value("Title").StartsWith("Hand bound notebook", StringComparison.Ordinal));
        TabTo(browser, "Category, level 1");
        browser.Press("Stationery");
        TabTo(browser, "Description");
        browser.Press("A hand bound notebook with linen covers and 192 pages of cream paper.");
        browser.WaitsForChecks();
        browser.Sees("[data-testid=publishable]", "Ready to publish");
        browser.AltShift("s");
        browser.Sees("[data-testid=send]", "Mark as published");
        TabTo(browser, "Mark as published");
        browser.Press(Keys.Enter);
        browser.Sees("[data-testid=toast]", "Marked as published");

        // Everything can be undone, and the history has it all.
        browser.Press("h");
        browser.Sees("[data-testid=history]", "Picked “linen notebook”");
        browser.Press(Keys.Escape);
        Assert.Empty(browser.Complaints());
    }

    // Presses Tab until what has the focus is called that.
    private static void TabTo(Browser browser, string name)
    {
        for (var i = 0; i < 120; i++)
        {
            if (
                (
                    (string)browser.Run("const a = document.activeElement; return a.getAttribute('aria-label') ?? a.innerText ?? ''")!
                ).StartsWith(name, StringComparison.Ordinal)
            )
                return;
            browser.Press(Keys.Tab);
        }

        Assert.Fail($"Tab never came to \"{name}\".");
    }

    private static void Walk(Browser browser, string term)
    {
        browser.Press(Keys.Home);
        for (var i = 0; i < 60 && browser.All($"[role=row][data-id='{term}'][aria-current=true]").Count == 0; i++)
            browser.Press(Keys.ArrowDown);
    }
}
