using OpenQA.Selenium;

namespace TinRabbit.Browser.Tests;

/// <summary>The README's pictures, taken from the demo. Run by ./tin shots, not with the tests.</summary>
public sealed class Shots
{
    [Fact(Explicit = true)]
    [Trait("kind", "shots")]
    public void Every_main_view()
    {
        var folder = Path.Combine(Repository.Root, "docs", "screenshots");
        Directory.CreateDirectory(folder);
        using (var bindery = new RunningShop(demo: true, other: "bindery"))
        using (var browser = new Browser(bindery))
        {
            browser.Go("/1/weir-street-gb/dig?term=notebook+cover");
            browser.Find("[data-testid=seen]");
            Thread.Sleep(700);
            browser.Picture(Path.Combine(folder, "dig-recorded.png"));
        }

        using var shop = new RunningShop(demo: true);
        using (var browser = new Browser(shop))
        {
            void Shot(string name, string path, string wait, Action? before = null)
            {
                browser.Go(path);
                browser.Find(wait);
                before?.Invoke();
                browser.Waits("the checks to end", () => !browser.Text("body").Contains("Checking…"));
                Thread.Sleep(700);
                browser.Picture(Path.Combine(folder, name + ".png"));
            }

            Shot(
                "dig",
                "/1/hedgerow-fair-us/dig?term=bird+house",
                "[data-testid=detail]",
                () =>
                {
                    browser.Go("/1/hedgerow-fair-us/dig?term=nest+box&parent=1&at=wren+nest+box");
                    browser.Find("[data-testid=detail]");
                }
            );
            Shot("pick", "/1/hedgerow-fair-us/pick?at=bird+lover+gift+for+mom", "[data-testid=claims]");
            Shot("write", "/1/hedgerow-fair-us/write?at=bird+house", ".under .whole");
            Shot("write-fill", "/1/longbarrow-us/write?side=fill&field=backend", "[data-testid=fill] .choice");
            Shot(
                "shop-platforms",
                "/platforms?id=longbarrow",
                "[data-testid=profile] table",
                () =>
                {
                    browser.Write("Limit of title", "60");
                    browser.Find("[data-testid=unfit]");
                }
            );
            Shot("pages", "/pages?at=3", "[role=treeitem].cursor");
            Shot("pages-write", "/1/web-us/write?side=page", "[data-testid=page-panel] table", () => browser.Find(".thread-mark"));
            Shot("pages-alt", "/pages?view=alt&at=1+0", "[data-testid=picture]");
            Shot("weigh", "/1/hedgerow-fair-us/weigh", "[data-testid=move]");
            Shot(
                "listings",
                "/listings",
                "[role=row][data-id]",
                () => browser.Waits("all weighed", () => browser.Text("h1").Contains("lose"))
            );
            Shot(
                "weigh-rivals",
                "/2/hedgerow-fair-us/weigh?view=rivals",
                "[role=row][data-id]",
                () =>
                {
                    for (var i = 0; i < 6; i++)
                        browser.Press(" ", Keys.ArrowDown);
                    browser.Press(Keys.Enter);
                    browser.Find("[data-testid=place]");
                    browser.Chord(Keys.Shift, "t");
                    browser.Find("[data-testid=pass]");
                    // The message of what was saved is gone by then.
                    Thread.Sleep(7500);
                }
            );
            Shot(
                "weigh-buyers",
                "/2/hedgerow-fair-us/weigh?view=buyers",
                "[data-testid=review-counts]",
                () =>
                {
                    browser.Press("r");
                    browser.Find("[data-testid=phrase]");
                    Thread.Sleep(7500);
                }
            );
            Shot("watch", "/1/hedgerow-fair-us/watch?sort=rank&dir=down", "[data-testid=why]");
            Shot("watch-days", "/3/hedgerow-fair-us/watch?view=days", ".days-chart canvas");
            Shot("watch-changes", "/3/hedgerow-fair-us/watch?view=notes", "[data-testid=verdict]");
            Shot("watch-movers", "/watch", "[role=row][data-id]");
            Shot("weigh-top", "/2/hedgerow-fair-us/weigh?view=top", "[data-testid=top-detail] h3");
        }

        using (var browser = new Browser(shop, night: true))
        {
            browser.Go("/5/overprint-lane-us/write?side=send");
            browser.ClickText("Send listing");
            browser.Find("[data-testid=send] tbody tr");
            Thread.Sleep(700);
            browser.Picture(Path.Combine(folder, "write-night.png"));
        }
    }
}
