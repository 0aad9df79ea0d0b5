using System.Net.Http.Json;
using System.Text.Json.Nodes;
using OpenQA.Selenium;

namespace TinRabbit.Browser.Tests;

/// <summary>Nothing typed is lost, whatever happens between the browser and the server. Each test has a product of its own.</summary>
[Collection("browser")]
public sealed class SavingTests : IClassFixture<DemoShop>, IAsyncLifetime
{
    private const string Market = "hedgerow-fair-us";
    private readonly RunningShop _shop;
    private readonly FailingProxy _proxy;
    private readonly HttpClient _http;

    public SavingTests(DemoShop demo)
    {
        _shop = demo.Shop;
        _proxy = new(_shop);
        _http = new() { BaseAddress = new(_shop.Address) };
    }

    public ValueTask InitializeAsync() => ValueTask.CompletedTask;

    public async ValueTask DisposeAsync()
    {
        await _proxy.DisposeAsync();
        _http.Dispose();
    }

    [Fact]
    public async Task A_conflict_that_arrives_while_the_screen_is_left_is_there_when_one_comes_back()
    {
        var (product, listing) = await Product("A conflict");
        using var browser = Open(product);
        _proxy.Fail(Fault.Held);
        browser.Write("Title", "Typed here");
        browser.Waits("the save on its way", () => _proxy.Failed > 0);
        await SaveElsewhere(listing, "Saved elsewhere");
        browser.AltShift("4");
        browser.Waits("another screen", () => browser.Address.Contains("/weigh"));
        // A save that hangs keeps nobody from the text.
        browser.AltShift("3");
        browser.Waits("the text that is on its way", () => browser.Value("Title") == "Typed here");
        browser.AltShift("4");
        browser.Waits("another screen", () => browser.Address.Contains("/weigh"));
        _proxy.Release();
        // Every screen says that something is not saved, and leads there.
        browser.Sees("[data-testid=unsaved]", "1 text not saved");
        browser.Click("[data-testid=unsaved]");
        browser.Sees("[data-testid=conflict]", "Typed here");
        browser.Sees("[data-testid=conflict]", "Saved elsewhere");
        Assert.Equal("Typed here", browser.Value("Title"));
        Assert.Equal("Saved elsewhere", await Title(listing));
        browser.ClickText("Keep this window’s text");
        browser.Sees("[data-testid=save-state]", "Saved automatically");
        Assert.Equal("Typed here", await Title(listing));
        Assert.Empty(browser.All("[data-testid=unsaved]"));
    }

    [Fact]
    public async Task What_could_not_be_saved_is_there_after_another_screen_and_the_next_key_goes_on_from_it()
    {
        var (product, listing) = await Product("A busy server");
        using var browser = Open(product);
        _proxy.Fail(Fault.Unavailable);
        browser.Write("Title", "Cedar nest b");
        browser.Sees("[data-testid=save-state]", "Not saved");
        browser.AltShift("4");
        browser.Waits("another screen", () => browser.Address.Contains("/weigh"));
        browser.AltShift("3");
        browser.Waits("the text that was typed", () => browser.Value("Title") == "Cedar nest b");
        Assert.DoesNotContain("Saved automatically", browser.Text("[data-testid=save-state]"));
        browser.Labelled("Title").SendKeys(Keys.End + "ox");
        _proxy.Release();
        browser.Sees("[data-testid=save-state]", "Saved automatically");
        Assert.Equal("Cedar nest box", await Title(listing));
    }

    [Fact]
    public async Task What_waits_is_not_saved_over_what_another_window_saved_meanwhile()
    {
        var (product, listing) = await Product("Waiting text");
        using var browser = Open(product);
        _proxy.Fail(Fault.Unavailable);
        browser.Write("Title", "Waiting");
        browser.Sees("[data-testid=save-state]", "Not saved");
        await SaveElsewhere(listing, "Saved meanwhile");
        browser.AltShift("4");
        browser.Waits("another screen", () => browser.Address.Contains("/weigh"));
        browser.AltShift("3");
        browser.Waits("the text that was typed", () => browser.Value("Title") == "Waiting");
        _proxy.Release();
        browser.Sees("[data-testid=conflict]", "Saved meanwhile");
        Assert.Equal("Saved meanwhile", await Title(listing));
        browser.ClickText("Use the other window’s text");
        browser.Waits("the other text", () => browser.Value("Title") == "Saved meanwhile");
        browser.Sees("[data-testid=save-state]", "Saved automatically");
    }

    [Fact]
    public async Task An_answer_that_is_lost_is_no_conflict_with_oneself()
    {
        var (product, listing) = await Product("A lost answer");
        using var browser = Open(product);
        _proxy.Fail(Fault.AnswerLost);
        browser.Write("Title", "Cedar");
        browser.Sees("[data-testid=save-state]", "Not saved");
        Assert.Equal("Cedar", await Title(listing));
        browser.Labelled("Title").SendKeys(Keys.End + " nest box");
        _proxy.Release();
        browser.Sees("[data-testid=save-state]", "Saved automatically");
        Assert.Empty(browser.All("[data-testid=conflict]"));
        Assert.Equal("Cedar nest box", await Title(listing));
    }

    [Fact]
    public async Task A_text_over_64_KiB_is_saved_also_when_the_page_is_left_at_once()
    {
        var (product, listing) = await Product("A long text");
        using var browser = Open(product);
        var text = string.Concat(Enumerable.Repeat("Кедровый домик. ", 5000));
        browser.Run(
            "const box = document.querySelector('[aria-label=Description]'); Object.getOwnPropertyDescriptor(HTMLTextAreaElement.prototype, 'value').set.call(box, arguments[0]); box.dispatchEvent(new Event('input', { bubbles: true }))",
            text
        );
        browser.Go("/settings");
        browser.Go($"/{product}/{Market}/write");
        browser.Sees("[data-testid=save-state]", "Saved automatically");
        Assert.Equal(text, (await Copy(listing))["description"]!.GetValue<string>());
        Assert.Equal(text.Length, browser.Value("Description").Length);
    }

    [Fact]
    public async Task Text_that_is_not_saved_survives_a_reload_and_a_closed_window_and_is_delivered_when_the_server_is_back()
    {
        var (product, listing) = await Product("A reload");
        using var browser = Open(product);
        var first = browser.NewWindow();
        browser.Go($"/{product}/{Market}/write");
        browser.Sees("[data-testid=save-state]", "Saved automatically");
        _proxy.Fail(Fault.Unreachable);
        browser.Write("Title", "Typed before the reload");
        browser.Sees("[data-testid=save-state]", "kept in this browser");
        browser.Reload();
        browser.Waits("the text after a reload", () => browser.Value("Title") == "Typed before the reload");
        browser.Sees("[data-testid=save-state]", "Not saved");
        browser.CloseWindow(first);
        Assert.Equal("", await Title(listing));
        _proxy.Release();
        // The next start takes over what the closed window left, whichever screen it is on.
        browser.Go("/settings");
        browser.Waits("the text delivered", () => Title(listing).Result == "Typed before the reload");
        browser.Go($"/{product}/{Market}/write");
        browser.Sees("[data-testid=save-state]", "Saved automatically");
        Assert.Equal("Typed before the reload", browser.Value("Title"));
    }

    [Fact]
    public async Task Alt_texts_and_facts_of_two_windows_are_shown_side_by_side()
    {
        var (product, _) = await Product("Two windows");
        using var browser = Open(product);
        await _http.PutAsJsonAsync($"/api/products/{product}/pictures", new { pictures = new[] { "Theirs" }, revision = 0 });
        browser.Write("Alt text 1", "Mine");
        browser.Sees("[data-testid=conflict]", "Theirs");
        browser.ClickText("Keep this window’s text");
        browser.Waits("mine saved", () => Pictures().Result == "Mine");
        browser.Go($"/{product}/{Market}/pick?side=facts");
        browser.Sees("[data-testid=facts]", "Material");
        var facts = new
        {
            what = "box",
            materials = new[] { "larch" },
            colours = Array.Empty<string>(),
            sizes = Array.Empty<string>(),
            audiences = Array.Empty<string>(),
            occasions = Array.Empty<string>(),
        };
        await _http.PutAsJsonAsync($"/api/products/{product}/facts", new { facts, revision = 0 });
        // Another line is no conflict, and what the other window wrote stays.
        browser.Write("Colour", "green" + Keys.Enter);
        browser.Waits("both kept", () => Fact("materials").Result == "larch" && Fact("colours").Result == "green");
        browser.Waits("the page to know", () => browser.Value("Material") == "larch");
        browser.Write("Material", "pine");
        await _http.PutAsJsonAsync($"/api/products/{product}/facts", new { facts = facts with { materials = ["oak"] }, revision = 2 });
        browser.Press(Keys.Enter);
        browser.Sees("[data-testid=text-conflict]", "oak");
        Assert.Equal("oak", await Fact("materials"));
        browser.ClickText("Keep this text");
        browser.Waits("mine saved", () => Fact("materials").Result == "pine");

        async Task<string> Pictures() => string.Join(", ", (await Shop(product))["pictures"]!.AsArray().Select(p => p!.GetValue<string>()));
        async Task<string> Fact(string key) =>
            string.Join(", ", (await Shop(product))["facts"]![key]!.AsArray().Select(p => p!.GetValue<string>()));
    }

    [Fact]
    public async Task A_pick_that_could_not_be_saved_is_offered_again()
    {
        var (product, _) = await Product("A pick");
        using var browser = Open(product);
        browser.Go($"/{product}/{Market}/dig?term=bird house");
        browser.Waits("terms", () => browser.All("[role=row]").Count > 3);
        _shop.Kill();
        browser.Press("p");
        browser.Sees("[data-testid=toast]", "Not saved");
        _shop.StartAgain();
        browser.ClickText("Try again");
        browser.Sees("[data-testid=toast]", "Picked");
        Assert.NotEmpty(
            JsonNode.Parse(await _http.GetStringAsync($"/api/products/{product}/picks?marketId={Market}"))!["picks"]!.AsArray()
        );
    }

    private Browser Open(int product)
    {
        var browser = new Browser(_proxy.Address);
        browser.Go($"/{product}/{Market}/write");
        browser.Sees("[data-testid=save-state]", "Saved automatically");
        return browser;
    }

    private async Task<(int Product, int Listing)> Product(string name)
    {
        using var added = await _http.PostAsJsonAsync(
            "/api/products",
            new
            {
                name,
                facts = (object?)null,
                pictures = (object?)null,
            }
        );
        var product = JsonNode.Parse(await added.Content.ReadAsStringAsync())!;
        return (product["id"]!.GetValue<int>(), product["listings"]!["hedgerow-fair"]!.GetValue<int>());
    }

    private async Task<JsonNode> Shop(int product) =>
        JsonNode.Parse(await _http.GetStringAsync("/api/shop"))!["products"]!.AsArray().Single(p => p!["id"]!.GetValue<int>() == product)!;

    private async Task<JsonNode> Copy(int listing) => JsonNode.Parse(await _http.GetStringAsync($"/api/listings/{listing}"))!["copy"]!;

    private async Task<string> Title(int listing) => (await Copy(listing))["title"]?.GetValue<string>() ?? "";

    private async Task SaveElsewhere(int listing, string title)
    {
        var revision = JsonNode.Parse(await _http.GetStringAsync($"/api/listings/{listing}"))!["revision"]!.GetValue<int>();
        (await _http.PutAsJsonAsync($"/api/listings/{listing}/copy", new { fields = new { title }, revision })).EnsureSuccessStatusCode();
    }
}
