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
            Shot("dig-grid", "/1/hedgerow-fair-us/dig?term=bird+house&view=grid&at=cedar+bird+house", "[data-testid=grid] .cursor");
            Shot("dig-scatter", "/1/hedgerow-fair-us/dig?term=nest+box&view=scatter&at=wren+nest+box", "[data-testid=scatter] circle");
            Shot(
                "dig-import",
                "/1/longbarrow-us/dig?view=import",
                "[data-testid=import]",
                () =>
                {
                    var file = Path.Combine(shop.Folder, "spring terms.csv");
                    File.WriteAllText(
                        file,
                        "Keyword;Monthly volume;Competition;CPC;Jan 2026;Feb 2026;Mar 2026\nlarch nest box;1.300;120;0,45;900;1.700;1.300\n\"owl box; barn\";12,1k;< 10;1,20;9.000;14.000;13.500\nswift brick;viele;9;;;;\nbat box kit;880;240;0,60;700;900;1.040\n"
                    );
                    browser.Find("input[type=file]").SendKeys(file);
                    browser.Find("[data-testid=read-as]");
                }
            );
            Shot("pick", "/1/hedgerow-fair-us/pick?at=bird+lover+gift+for+mom", "[data-testid=claims]");
            Shot("write", "/1/hedgerow-fair-us/write?at=bird+house", ".under .whole");
            Shot("write-fill", "/1/longbarrow-us/write?side=fill&field=backend", "[data-testid=fill] .choice");
            Shot(
                "write-takes",
                "/2/hedgerow-fair-us/write",
                ".under .whole, .under .together",
                () =>
                {
                    browser.Labelled("Title").Click();
                    browser.AltShift("f");
                    browser.Find("[data-testid=fill-effect]");
                    browser.Press("k", Keys.ArrowDown, "k", Keys.Escape);
                    browser.AltShift("k");
                    browser.Waits("three takes", () => browser.All("[data-testid=takes] .take").Count >= 2);
                    browser.Press(" ", Keys.ArrowDown, " ");
                    browser.Find("[data-testid=side-by-side]");
                }
            );
            Shot(
                "write-versions",
                "/1/longbarrow-us/write?side=versions",
                "[data-testid=versions]",
                () =>
                {
                    browser.Labelled("Name of the new version").SendKeys("As it was" + Keys.Enter);
                    browser.Find("[data-testid=versions] .take");
                    browser.Write("Title", "Wren nest box, western red cedar bird house for the garden, Plover & Pine");
                    browser.Sees("[data-testid=save-state]", "Saved automatically");
                    browser.Run("document.querySelector('[data-testid=versions]').focus()");
                    browser.Press(Keys.Enter);
                    browser.Find("[data-testid=changed-field]");
                }
            );
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
            Shot("pages-leads", "/pages?view=leads", "[data-testid=clash]");
            Shot(
                "pages-import",
                "/pages?view=files",
                "[data-testid=files]",
                () =>
                {
                    var file = Path.Combine(shop.Folder, "listings.csv");
                    File.WriteAllText(
                        file,
                        "product,platform,title,tags\nSwift box,hedgerow-fair,\"Swift nest box, cedar bird house for eaves\",\"swift box, bird house\"\n\"Wren nest box, cedar\",hedgerow-fair,\"Cedar wren nest box, bird house for small gardens\",\n"
                    );
                    browser.Find("input[type=file]").SendKeys(file);
                    browser.Find("[data-testid=import-item]");
                }
            );
            Shot("weigh", "/1/hedgerow-fair-us/weigh", "[data-testid=move]");
            Shot(
                "settings",
                "/settings",
                "[data-testid=backups]",
                () =>
                {
                    browser.ClickText("Back up now");
                    browser.Sees("[data-testid=backups]", "Manual");
                }
            );
            Shot("new", "/new", "[name=where]", () => browser.Run("[...document.querySelectorAll('[name=where]')].at(-1).click()"));
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
