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
        // What else could stand at the start of the title is under the best that could.
        int Moves() => browser.All("[data-testid=move]").Count;
        var folded = Moves();
        Assert.Single(browser.Texts("[data-testid=move]"), t => t.Contains("Start the title", StringComparison.Ordinal));
        browser.Press(" ");
        browser.Waits("the others in its place", () => Moves() > folded);
        browser.Press(" ");
        browser.Waits("one row for each place", () => Moves() == folded);
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

    [Fact]
    public void The_listing_that_loses_the_most_passes_a_rival_by_moves_and_picks_what_buyers_say()
    {
        using var shop = new RunningShop(demo: true);
        using var browser = new Browser(shop);

        // The shop opens on its listings; the first of a marketplace is where one begins.
        browser.Go("/");
        browser.Sees("[data-testid=listings]", "50 listings");
        browser.Waits("all weighed", () => browser.Text("[data-testid=listings]").Contains("searches/mo;"));
        browser.Run(
            "const s = document.querySelector('[aria-label=Platform]'); s.value = 'hedgerow-fair'; s.dispatchEvent(new Event('change', { bubbles: true }))"
        );
        browser.Sees("[data-testid=listings]", "4 listings");
        // Where more is sold there is more to gain; by the loss alone another comes first.
        Assert.StartsWith("Wren nest box", browser.Texts("[role=row][data-id]")[0], StringComparison.Ordinal);
        browser.ClickText("Lost");
        browser.Waits(
            "the most lost first",
            () => browser.Texts("[role=row][data-id]")[0].StartsWith("Window feeder", StringComparison.Ordinal)
        );
        browser.Click("[role=row][data-id]");
        browser.Press(Keys.Enter);
        browser.Waits("its moves", () => browser.Address.StartsWith("/2/hedgerow-fair-us/weigh", StringComparison.Ordinal));
        browser.Find("[data-testid=move]");

        // Rivals from the market's results, and why the next above is ahead.
        browser.Chord(Keys.Shift, "2");
        browser.Sees("[data-testid=rivals]", "Results for");
        browser.Find("[role=row][data-id]");
        for (var i = 0; i < 6; i++)
            browser.Press(" ", Keys.ArrowDown);
        browser.Press(Keys.Enter);
        browser.Sees("[data-testid=place]", "Place 7 of 7 by grip");
        browser.Sees("[data-testid=rivals-detail]", "It holds, and yours doesn’t");
        Assert.Contains("bird feeder", browser.Text("[data-testid=rivals-detail]"));

        // The moves that pass it, applied and saved.
        browser.Chord(Keys.Shift, "t");
        browser.Sees("[data-testid=pass]", "past its");
        var before = Grip(browser);
        browser.Chord(Keys.Shift, "t");
        browser.Sees("[data-testid=toast]", "to pass");
        browser.Waits("first by grip", () => browser.Text("[data-testid=place]").Contains("firmest grip"));
        browser.Waits("a higher grip", () => Grip(browser) > before);
        var after = Grip(browser);

        // What is said about theirs and true of mine: one key picks it and says what it measured.
        browser.Chord(Keys.Shift, "3");
        browser.Sees("[data-testid=review-counts]", "120 reviews of yours, 0 of your rivals’");
        browser.Press("r");
        browser.Sees("[data-testid=phrases]", "Said about theirs, and true of yours by its facts");
        browser.Sees("[data-testid=buyers-detail]", "clear acrylic");
        browser.Press("p");
        browser.Sees("[data-testid=toast]", "Picked “clear acrylic”");
        browser.Sees("[data-testid=pocket]", "Pocket 11");

        // One step back takes the pick away; the text stays as the moves made it.
        browser.ClickText("Undo");
        browser.Sees("[data-testid=pocket]", "Pocket 10");
        browser.Waits("the same grip", () => Grip(browser) == after);
        // The reviews came after the moves, so they go first; then the moves go, and come back.
        browser.Chord(Keys.Shift, "1");
        browser.Press("u");
        browser.Sees("[data-testid=toast]", "reviews");
        Assert.Equal(after, Grip(browser));
        browser.Press("u");
        browser.Waits("the grip before the moves", () => Grip(browser) == before);
        browser.Chord(Keys.Shift, "u");
        browser.Waits("the grip after the moves, made again", () => Grip(browser) == after);
        Assert.Empty(browser.Complaints());
    }

    [Fact]
    public void One_change_to_many_listings_shows_first_and_is_undone_as_one()
    {
        using var shop = new RunningShop(demo: true);
        using var browser = new Browser(shop);
        browser.Go("/listings?platform=hedgerow-fair");
        browser.Waits("four listings", () => browser.All("[role=row][data-id]").Count == 4);
        browser.Chord(Keys.Control, "a");
        browser.Sees("[data-testid=listings]", "4 selected");
        browser.Press("t");
        browser.Sees("[data-testid=edit-many]", "in 4 listings");
        browser.Press("handmade gift");
        browser.Sees("[data-testid=planned]", "handmade gift");
        browser.Sees("[data-testid=edit-many]", "Change 4 listings");
        browser.Press(Keys.Enter);
        browser.Sees("[data-testid=toast]", "Changed 4 listings");
        browser.Go("/1/hedgerow-fair-us/write");
        browser.Sees("[data-testid=sheet]", "10 of 12");
        browser.Go("/listings");
        browser.Find("[role=row][data-id]");
        browser.Press("u");
        browser.Sees("[data-testid=toast]", "Undone: Changed 4 listings");

        // What is archived leaves the list, and comes back.
        browser.Press(Keys.ArrowUp, "a");
        browser.Sees("[data-testid=toast]", "Archived 1 listing");
        browser.Sees("[data-testid=listings]", "49 listings");
        browser.Sees("Archived (1)");
        browser.Press("u");
        browser.Sees("[data-testid=listings]", "50 listings");

        // Products by platform; Enter opens the place that loses the most.
        browser.Press("g");
        browser.Sees("[role=grid]", "not listed");
        browser.Press(Keys.ArrowUp, Keys.Enter);
        browser.Waits("the listing", () => browser.Address.StartsWith("/1/web-us/weigh", StringComparison.Ordinal));
        Assert.Empty(browser.Complaints());
    }

    [Fact]
    public void An_attribute_is_filled_by_key_and_a_better_text_is_brought_over_from_another_platform()
    {
        using var shop = new RunningShop(demo: true);
        using var browser = new Browser(shop);
        browser.Go("/2/hedgerow-fair-us/weigh?view=top");
        browser.Sees("[data-testid=top-detail]", "Colour: clear");
        browser.Press(Keys.Enter);
        browser.Sees("[data-testid=toast]", "Filled Colour: clear");
        browser.Sees("[data-testid=top-detail]", "Yours: clear");
        browser.Press(Keys.ArrowDown, Keys.Enter);
        browser.Sees("[data-testid=toast]", "“green” isn’t in this product’s facts");

        browser.Chord(Keys.Shift, "5");
        browser.Sees("[data-testid=bring]", "Fitted to Hedgerow Fair’s limits");
        var before = Grip(browser);
        browser.ClickText("Bring 2 fields over");
        browser.Sees("[data-testid=toast]", "Brought 2 fields over from Longbarrow");
        browser.Waits("a higher grip", () => Grip(browser) > before);
        browser.Press("u");
        browser.Waits("the grip before", () => Grip(browser) == before);
        Assert.Empty(browser.Complaints());
    }

    private static int Grip(Browser browser) => int.TryParse(browser.Text("[data-testid=grip]"), out var grip) ? grip : -1;
}
