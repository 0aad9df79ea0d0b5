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
                Thread.Sleep(700);
                browser.Picture(Path.Combine(folder, name + ".png"));
            }

            Shot("dig", "/1/hedgerow-fair-us/dig?term=bird+house", "[data-testid=detail]", () =>
            {
                browser.Go("/1/hedgerow-fair-us/dig?term=nest+box&parent=1&at=wren+nest+box");
                browser.Find("[data-testid=detail]");
            });
            Shot("dig-paste", "/1/hedgerow-fair-us/dig?term=bat+box&from=both", "[data-testid=detail]", () =>
            {
                browser.Press("v");
                browser.Write("Terms to paste", "larch bat box; 320; 45\nbat roost; lots\nbat box kit; 1.2k");
                browser.Chord(Keys.Control, Keys.Enter);
                browser.Find("[data-testid=bad-lines]");
            });
            Shot("pick", "/1/hedgerow-fair-us/pick?at=birdhouse", "[data-testid=detail]");
            Shot("write", "/1/hedgerow-fair-us/write?at=bird+house", ".under .whole");
            Shot("write-longbarrow", "/1/longbarrow-us/write", ".under .whole");
            Shot("weigh", "/1/hedgerow-fair-us/weigh?at=cedar+bird+house", "[data-testid=trace]");
            Shot("keys", "/1/hedgerow-fair-us/pick", "[data-testid=detail]", () => browser.Press("?"));
        }

        using (var browser = new Browser(shop, night: true))
        {
            browser.Go("/1/hedgerow-fair-us/write?at=bird+house");
            browser.Find(".under .whole");
            Thread.Sleep(700);
            browser.Picture(Path.Combine(folder, "write-night.png"));
        }
    }
}
