using OpenQA.Selenium;

namespace TinRabbit.Browser.Tests;

/// <summary>axe-core finds nothing serious or critical on any main view, in both themes; and nothing needs sideways scrolling on a phone.</summary>
[Collection("browser")]
public sealed class AccessTests(DemoShop demo) : IClassFixture<DemoShop>
{
    private static readonly string Axe = File.ReadAllText(
        Path.Combine(Repository.Root, "src", "web", "node_modules", "axe-core", "axe.min.js")
    );

    // A view: its address, what to wait for, and what to press then.
    private static readonly (string Path, string Wait, string[] Press)[] Views =
    [
        ("/1/hedgerow-fair-us/dig", "[role=row][data-id]", []),
        ("/1/hedgerow-fair-us/dig?term=bird+house&at=bird+house", "[data-testid=seen]", []),
        ("/1/hedgerow-fair-us/dig?term=bird+house&view=grid&at=cedar+bird+house", "[data-testid=grid] .cursor", []),
        ("/1/hedgerow-fair-us/dig?term=nest+box&view=scatter&at=wren+nest+box", "[data-testid=scatter] circle", []),
        ("/1/hedgerow-fair-us/dig?view=import", "[data-testid=import]", []),
        ("/1/hedgerow-fair-us/dig", "[role=row][data-id]", ["v"]),
        ("/1/hedgerow-fair-us/pick?at=bird+lover+gift+for+mom", "[data-testid=claims]", []),
        ("/2/hedgerow-fair-us/pick?side=facts", "[data-testid=facts]", []),
        ("/2/hedgerow-fair-us/pick?side=ideas", "[data-testid=ideas] table", []),
        ("/1/hedgerow-fair-us/pick?side=language", "[data-testid=language] table", []),
        ("/1/hedgerow-fair-us/write?at=bird+house", "[data-testid=field-findings]", []),
        ("/1/longbarrow-us/write?side=fill&field=backend", "[data-testid=fill] .choice", []),
        ("/1/hedgerow-fair-us/write?side=findings", "[data-testid=findings] .take", []),
        ("/1/hedgerow-fair-us/write?side=takes", "[data-testid=takes] .take", []),
        ("/1/hedgerow-fair-us/write?side=read", "[data-testid=reading] .take", []),
        ("/1/hedgerow-fair-us/write?side=versions", "[data-testid=versions]", []),
        ("/1/hedgerow-fair-us/write?side=send", "[data-testid=send]", []),
        ("/1/hedgerow-fair-us/weigh?at=cedar+bird+house", "[data-testid=trace] table", []),
        ("/1/hedgerow-fair-us/weigh", "[data-testid=move]", []),
        ("/1/hedgerow-fair-us/weigh?view=rivals", "[role=row][data-id]", []),
        ("/1/hedgerow-fair-us/weigh?view=rivals", "[role=row][data-id]", ["v"]),
        ("/1/hedgerow-fair-us/weigh?view=buyers", "[data-testid=review-counts]", []),
        ("/1/hedgerow-fair-us/weigh?view=top", "[data-testid=top-detail] h3", []),
        ("/1/hedgerow-fair-us/weigh?view=top&words=1", "[data-testid=top-detail] h3", []),
        ("/1/hedgerow-fair-us/weigh?view=places", "[data-testid=bring]", []),
        ("/1/hedgerow-fair-us/watch", "[role=row][data-id]", []),
        ("/1/hedgerow-fair-us/watch", "[role=row][data-id]", ["v"]),
        ("/1/hedgerow-fair-us/watch", "[role=row][data-id]", ["o"]),
        ("/1/hedgerow-fair-us/watch?view=days", ".days-chart canvas", []),
        ("/1/longbarrow-us/watch?view=notes", "[data-testid=verdict]", []),
        ("/1/longbarrow-us/watch?view=notes", "[data-testid=verdict]", ["n"]),
        ("/1/hedgerow-fair-us/watch?view=rules", "[data-testid=grip-and-rank]", []),
        ("/watch", "[role=row][data-id]", []),
        ("/watch?view=journal", "[role=row][data-id]", []),
        ("/watch?view=worked", "[data-testid=worked] tbody tr", []),
        ("/listings", "[role=row][data-id]", []),
        ("/listings?view=platforms", "[role=row][data-id]", []),
        ("/listings?platform=hedgerow-fair", "[role=row][data-id]", ["r"]),
        ("/pages", "[role=treeitem]", []),
        ("/pages", "[role=treeitem]", ["n"]),
        ("/pages?view=alt", "[data-testid=picture]", []),
        ("/pages?view=leads", "[data-testid=clash]", []),
        ("/pages?view=files", "[data-testid=files]", []),
        ("/pages?view=site", "[data-testid=site-settings]", []),
        ("/1/web-us/write?side=page", "[data-testid=page-panel]", []),
        ("/platforms?id=longbarrow", "[data-testid=profile] table", []),
        ("/settings", "[data-testid=backups]", []),
        ("/help", "[data-testid=help] h2", []),
        ("/new", "[name=where]", []),
        ("/1/hedgerow-fair-us/pick", "[data-testid=detail]", ["?"]),
        ("/1/hedgerow-fair-us/pick", "[data-testid=detail]", ["h"]),
    ];

    [Theory]
    [InlineData(false)]
    [InlineData(true)]
    public void Every_view_is_free_of_serious_findings(bool night)
    {
        using var browser = new Browser(demo.Shop, night);
        var found = new List<string>();
        foreach (var (path, wait, press) in Views)
        {
            browser.Go(path);
            browser.Find(wait);
            browser.Press(press);
            Thread.Sleep(300);
            browser.Run(Axe);
            var violations =
                (IEnumerable<object>)
                    browser.RunAsync(
                        """
                        const done = arguments[arguments.length - 1];
                        axe.run(document, { resultTypes: ['violations'] }).then(
                            r => done(r.violations.filter(v => v.impact === 'serious' || v.impact === 'critical').map(v => v.id + ': ' + v.nodes.slice(0, 4).map(n => n.target.join(' ') + ' ' + (n.any[0]?.message ?? n.all[0]?.message ?? n.none[0]?.message ?? '')).join(' | '))),
                            e => done(['axe failed: ' + e]));
                        """
                    )!;
            found.AddRange(violations.Select(v => $"{path} {string.Join(' ', press)}: {v}"));
        }

        Assert.True(found.Count == 0, string.Join("\n", found));
    }

    [Fact]
    public void Nothing_scrolls_sideways_on_a_phone()
    {
        using var browser = new Browser(demo.Shop);
        browser.Resize(390, 844);
        var wide = new List<string>();
        foreach (var (path, wait, press) in Views)
        {
            browser.Go(path);
            browser.Find(wait);
            browser.Press(press);
            Thread.Sleep(200);
            if ((long)browser.Run("return document.documentElement.scrollWidth")! is > 390 and var width)
                wide.Add($"{path} {string.Join(' ', press)}: {width}");
        }

        Assert.True(wide.Count == 0, string.Join("\n", wide));
    }

    [Fact]
    public void A_focused_button_takes_the_space_bar_and_the_focus_never_drops_to_the_page()
    {
        using var browser = new Browser(demo.Shop);
        browser.Go("/2/hedgerow-fair-us/pick");
        browser.Find("[role=row][data-id]");
        string Focused() =>
            (string)
                browser.Run(
                    "return document.activeElement === document.body ? 'the page' : document.activeElement.getAttribute('role') ?? document.activeElement.tagName"
                )!;
        // A button is pressed by the space bar; no row is selected.
        browser.Run("document.querySelector('.choice[aria-pressed]').focus()");
        browser.Run("[...document.querySelectorAll('button.choice')].find(b => b.textContent.includes('Facts')).focus()");
        browser.Press(" ");
        browser.Find("[data-testid=facts]");
        Assert.Empty(browser.All("[role=row][data-id][aria-selected=true]"));
        // Rows are one tab stop, which goes with the arrow keys.
        browser.Run("document.querySelector('[role=row][tabindex=\"0\"]').focus()");
        var first = (string)browser.Run("return document.activeElement.dataset.id")!;
        browser.Press(Keys.ArrowDown);
        browser.Waits(
            "the focus on the next row",
            () => (string?)browser.Run("return document.activeElement.dataset.id ?? ''") is { Length: > 0 } now && now != first
        );
        Assert.Single(browser.All("[role=row][data-id][tabindex='0']"));
        // A row that goes away leaves the focus in the table.
        var here = (string)browser.Run("return document.activeElement.dataset.id")!;
        browser.Press("p");
        browser.Waits("the pick removed", () => browser.All($"[role=row][data-id=\"{here}\"]").Count == 0);
        browser.Waits("the focus in the table", () => Focused() == "row");
        browser.Press("u");
        browser.Waits("the pick restored", () => browser.All($"[role=row][data-id=\"{here}\"]").Count == 1);
        // A shortcut works while a check box has the focus, and a dialog gives the focus back.
        browser.Press("?");
        browser.Find("dialog[open]");
        browser.Press(Keys.Escape);
        browser.Waits("the dialog closed", () => browser.All("dialog[open]").Count == 0);
        Assert.NotEqual("the page", Focused());
    }

    [Fact]
    public void The_focus_is_in_the_work_when_a_screen_opens_and_stays_there_after_a_dismissal_a_fill_an_undo_and_a_split()
    {
        using var shop = new RunningShop(demo: true);
        using var browser = new Browser(shop);
        bool IsInWork() => (bool)browser.Run("return document.activeElement.closest('main') !== null")!;
        foreach (var path in new[] { "dig", "pick", "write", "weigh", "watch" })
        {
            browser.Go($"/2/hedgerow-fair-us/{path}");
            browser.Waits($"the focus in {path}", IsInWork);
        }

        foreach (var path in new[] { "/listings", "/watch", "/pages", "/platforms", "/settings" })
        {
            browser.Go(path);
            browser.Waits($"the focus in {path}", IsInWork);
        }

        browser.Go("/2/hedgerow-fair-us/write");
        browser.WaitsForChecks();
        const string Dismiss = "[...document.querySelectorAll('main button')].filter(b => b.innerText.trim() === 'Dismiss')";
        string First() => (string)browser.Run($"return {Dismiss}[0]?.parentElement.innerText ?? ''")!;
        browser.Waits("a finding", () => First().Length > 0);
        var finding = First();
        browser.Run($"{Dismiss}[0].focus()");
        browser.Press(Keys.Enter);
        browser.Sees("[data-testid=toast]", "Dismissed until the text changes");
        browser.Waits("another finding", () => First() != finding);
        browser.Waits("the focus after a dismissal", IsInWork);
        browser.Press("u");
        browser.Waits("the finding", () => First() == finding);
        Assert.True(IsInWork());

        // A fill goes back to the box that it was asked for from, where Ctrl Z takes it back; what is typed after it is the browser's to undo.
        browser.Write("Title", "Window feeder");
        browser.Labelled("Title").Click();
        browser.AltShift("f");
        browser.Sees("[data-testid=fill]", "Use this title");
        browser.Press(Keys.Enter);
        browser.Waits("the filled title", () => browser.Value("Title") != "Window feeder");
        Assert.True(IsInWork());
        browser.Chord(Keys.Control, "z");
        browser.Waits("the title before", () => browser.Value("Title") == "Window feeder");
        browser.Press("s");
        browser.Waits("the letter", () => browser.Value("Title").Length == "Window feeders".Length);
        browser.Chord(Keys.Control, "z");
        browser.Waits("no letter", () => browser.Value("Title") == "Window feeder");

        browser.Write("Tags 1", "a bird feeder for every kitchen window");
        browser.Run("[...document.querySelectorAll('button')].find(b => b.innerText === 'Split').focus()");
        browser.Press(Keys.Enter);
        browser.Waits("the first part", () => browser.Value("Tags 1").Length < 25);
        browser.Waits(
            "the focus on it",
            () => (string)browser.Run("return document.activeElement.getAttribute('aria-label') ?? ''")! == "Tags 1"
        );
    }

    [Fact]
    public void Single_letters_can_be_switched_off()
    {
        using var browser = new Browser(demo.Shop);
        browser.Go("/2/hedgerow-fair-us/pick");
        browser.Find("[role=row][data-id]");
        browser.Press("?");
        browser.Find("dialog[open] input[type=checkbox]").Click();
        browser.Press(Keys.Escape);
        browser.Press("f");
        Thread.Sleep(300);
        Assert.Empty(browser.All("[data-testid=facts]"));
        browser.Chord(Keys.Control, "k");
        browser.Find("dialog[open]");
    }
}
