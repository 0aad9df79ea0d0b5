using System.IO.Compression;
using System.Text.Json.Nodes;
using OpenQA.Selenium;

namespace TinRabbit.Browser.Tests;

/// <summary>A small web shop from a pasted outline to an export that makes an equal shop.</summary>
[Collection("browser")]
public sealed class WebShopTests
{
    [Fact]
    public async Task A_site_is_planned_written_and_taken_to_another_shop()
    {
        using var shop = new RunningShop(demo: false, connected: true);
        using var browser = new Browser(shop);

        // A product first; what it is called is what most shoppers would type.
        browser.Go("/");
        browser.Sees("Add your first product");
        browser.Press("Cedar bird house", Keys.Tab, "bird house", Keys.Tab, " ", Keys.Enter);
        browser.Waits("the first search", () => browser.Address.Contains("/dig"));

        // The site, and its categories from an outline; a name that is used twice is refused, and nothing is made.
        browser.Go("/pages?view=site");
        Fill(browser, "Brand", "Plover & Pine");
        Fill(browser, "Address", "https://plover.example");
        browser.Press(Keys.Enter);
        browser.Sees("[data-testid=toast]", "Changed the settings of the web shop");
        browser.Go("/pages");
        browser.Sees("No pages yet");
        browser.Press("o");
        browser.Labelled("Outline").SendKeys("Bird houses\n  Wren houses\nBird houses");
        browser.Sees("Create 0 pages");
        browser.Sees("Line 3");
        browser.Labelled("Outline").Clear();
        browser.Labelled("Outline").SendKeys("Bird houses\n  Wren houses");
        browser.Sees("[data-testid=planned]", "/wren-houses");
        browser.ClickText("Create 2 pages");
        browser.Waits("both categories", () => browser.All("[role=treeitem]").Count == 2);

        // A content page, moved into the first category by key, and the product's page.
        browser.Press("n");
        browser.ClickText("Content");
        Focus(browser, "Name");
        browser.Press("How to clean a bird house", Keys.Enter);
        browser.Waits("the content page", () => browser.All("[role=treeitem]").Count == 3);
        browser.Press("n");
        browser.ClickText("Product");
        Focus(browser, "Product");
        browser.Press(Keys.ArrowDown, Keys.Tab, Keys.Tab, Keys.Enter);
        browser.Waits("the product's page", () => browser.All("[role=treeitem]").Count == 4);

        // A page of each kind, written until nothing is required, and published.
        var pages = Pages(browser);
        Assert.Equal(4, pages.Count);
        foreach (var (name, id) in pages)
        {
            browser.Go($"/pages?at={id}");
            browser.Find($"[role=treeitem][data-id='{id}'].cursor");
            browser.Press(Keys.Enter);
            // A category may be without a text; that it should have one is recommended.
            var isCategory = name is "Bird houses" or "Wren houses";
            browser.Sees("[data-testid=publishable]", isCategory ? "Ready to publish" : "required fix");
            browser.Find("[role=textbox].rich").Click();
            browser.Press("Dry and safe for small birds all year. ", name, " is a page of this shop.");
            browser.WaitsForChecks();
            browser.Sees("[data-testid=publishable]", "Ready to publish");
            browser.Go($"/pages?at={id}");
            browser.Find($"[role=treeitem][data-id='{id}'].cursor");
            browser.Press("b");
            browser.Waits(
                $"{name} published",
                () => browser.All($"[role=treeitem][data-id='{id}']").Any(r => r.Text.Contains("published", StringComparison.Ordinal))
            );
        }

        // Two pages with one lead compete; one of them gets its best free term.
        foreach (var name in new[] { "Bird houses", "Cedar bird house" })
        {
            browser.Go($"/pages?at={pages[name]}");
            browser.Find($"[role=treeitem][data-id='{pages[name]}'].cursor");
            browser.Press(Keys.Enter);
            browser.Waits("the page", () => browser.Address.EndsWith("/write", StringComparison.Ordinal));
            var product = browser.Address.Split('/')[1];
            foreach (var term in new[] { "bird house", "hanging bird house" })
            {
                browser.Go($"/{product}/web-us/dig?term=bird+house&at={term.Replace(' ', '+')}");
                browser.Find($"[role=row][data-id='{term}'][aria-current=true]");
                browser.Press("p");
                browser.Sees("[data-testid=toast]", $"Picked “{term}”");
            }

            browser.Go($"/{product}/web-us/pick?at=bird+house");
            browser.Find("[role=row][data-id='bird house']").Click();
            browser.Press("e");
            browser.Sees("[data-testid=toast]", "lead");
        }

        browser.Go("/pages?view=leads");
        browser.Sees("[data-testid=clash]", "The lead of several pages.");
        browser.ClickText("Set its lead to");
        browser.Waits(
            "no page that has another's lead",
            () => !browser.Text("[data-testid=leads]").Contains("The lead of several pages.", StringComparison.Ordinal)
        );

        // The alt sheet, filled by a pattern.
        browser.Go("/1/web-us/write");
        browser.Write("Alt text 1", "A picture");
        browser.Waits(
            "the alt text saved",
            () => (long)browser.Run("return performance.getEntriesByType('resource').filter(e => e.name.endsWith('/pictures')).length")! > 0
        );
        browser.Sees("[data-testid=save-state]", "Saved automatically");
        browser.Go("/pages?view=alt");
        browser.Sees("1 picture");
        browser.Press("f");
        browser.Write("Pattern", "{name} among roses");
        browser.ClickText("All");
        browser.Sees("[data-testid=alt-fill] ins", "Cedar bird house among roses");
        browser.ClickText("Fill 1 alt text");
        browser.Sees("[role=row][data-id]", "Cedar bird house among roses");
        // The browser tells of the refused outline too.
        Assert.DoesNotContain(browser.Complaints(), c => !c.Contains("/outline/preview", StringComparison.Ordinal));

        // The whole shop into an empty one: a preview, then every field the same.
        using var http = new HttpClient();
        var file = Path.Combine(shop.Folder, "shop.zip");
        await File.WriteAllBytesAsync(file, await http.GetByteArrayAsync($"{shop.Address}/api/shop/export.zip"));
        using var other = new RunningShop(demo: false);
        using var second = new Browser(other);
        second.Go("/pages?view=files");
        second.Find("input[type=file]").SendKeys(file);
        second.Sees("[data-testid=import-preview]", "Nothing is written yet");
        Assert.Empty(JsonNode.Parse(await http.GetStringAsync($"{other.Address}/api/pages"))!["pages"]!.AsArray());
        second.Click("[data-testid=import-preview] .btn-primary");
        second.Sees("[data-testid=toast]", "Imported");
        second.Go("/pages");
        second.Waits("all pages", () => second.All("[role=treeitem]").Count == 4);
        var again = Path.Combine(other.Folder, "again.zip");
        await File.WriteAllBytesAsync(again, await http.GetByteArrayAsync($"{other.Address}/api/shop/export.zip"));
        Assert.Equal(Shop(file), Shop(again));
        Assert.Empty(second.Complaints());
    }

    // The pages of the tree by name.
    private static Dictionary<string, string> Pages(Browser browser) =>
        browser
            .All("[role=treeitem]")
            .ToDictionary(r => r.FindElement(By.CssSelector("button.link")).Text, r => r.GetAttribute("data-id")!);

    // What a shop's export says, its pages numbered by their order in it.
    private static string Shop(string file)
    {
        using var zip = ZipFile.OpenRead(file);
        using var reader = new StreamReader(zip.GetEntry("shop.json")!.Open());
        var document = JsonNode.Parse(reader.ReadToEnd())!;
        var pages = document["products"]!.AsArray().Select(p => p!["page"]).OfType<JsonObject>().ToList();
        var numbers = pages.Select((p, i) => (Id: p["id"]!.GetValue<int>(), i)).ToDictionary(p => p.Id, p => p.i);
        foreach (var page in pages)
        foreach (var key in new[] { "id", "parent" })
            if (page[key] is JsonValue number)
                page[key] = numbers[number.GetValue<int>()];
        return document.ToJsonString();
    }

    [Fact]
    public void The_primary_category_is_changed_by_key_and_taken_back()
    {
        using var shop = new RunningShop(demo: true);
        using var browser = new Browser(shop);
        browser.Go("/pages");
        var place = () => browser.All("[role=treeitem] button.link").Select(r => r.Text).ToList().IndexOf("Bat box");
        browser.Waits("the page", () => place() > 0);
        var before = place();
        browser.Click("[aria-label='Page “Bat box”']");
        browser.ClickText("Categories…");
        browser.Sees("Categories of “Bat box”");
        browser.Press(Keys.ArrowDown, Keys.Enter);
        browser.Sees("[data-testid=toast]", "Bat box");
        browser.Waits("another place", () => place() > before);
        browser.Press("u");
        browser.Waits("its old place", () => place() == before);
        Assert.Empty(browser.Complaints());
    }

    private static void Fill(Browser browser, string label, string text)
    {
        Focus(browser, label);
        browser.Press(text);
    }

    // The box of a label that begins so.
    private static void Focus(Browser browser, string label) =>
        browser.Waits(
            $"the box of \"{label}\"",
            () =>
                (bool)
                    browser.Run(
                        $$"""
                        const label = [...document.querySelectorAll('label')].find(l => l.textContent.startsWith('{{label}}'));
                        const box = label?.querySelector('input, select');
                        box?.focus();
                        return document.activeElement === box && !!box;
                        """
                    )!
        );
}
