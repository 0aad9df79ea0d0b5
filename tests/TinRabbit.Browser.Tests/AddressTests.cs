using OpenQA.Selenium;

namespace TinRabbit.Browser.Tests;

/// <summary>Addresses that name nothing, screens that fail, and the settings.</summary>
[Collection("browser")]
public sealed class AddressTests(DemoShop demo) : IClassFixture<DemoShop>
{
    [Theory]
    [InlineData("/1/hedgerow-fair-us/nonsense")]
    [InlineData("/nonsense")]
    [InlineData("/1/hedgerow-fair-us/dig/nonsense")]
    public void An_address_that_names_nothing_says_so_once_and_is_not_remembered(string address)
    {
        using var browser = new Browser(demo.Shop);
        browser.Go("/2/hedgerow-fair-us/pick");
        browser.Sees("Window feeder");
        browser.Waits(
            "the place remembered",
            () => browser.Run("return localStorage.getItem('last')") as string == "/2/hedgerow-fair-us/pick"
        );
        browser.Go(address);
        browser.Sees("There is no page at this address");
        Assert.Equal(1L, browser.Run("return performance.getEntriesByType('navigation').length"));
        Assert.Equal(address, browser.Address);
        browser.ClickText("Go to my shop");
        browser.Waits("the list of the shop", () => browser.Address == "/listings");
        browser.ClickText("Back to listing");
        browser.Waits("the last place there is", () => browser.Address == "/2/hedgerow-fair-us/pick");
    }

    [Theory]
    [InlineData("/1/hedgerow-fair-us/nonsense")]
    [InlineData("/999/nowhere/dig")]
    [InlineData("nonsense")]
    public void A_wrong_place_that_was_remembered_does_no_harm(string last)
    {
        using var browser = new Browser(demo.Shop);
        browser.Go("/settings");
        browser.Run("localStorage.setItem('last', arguments[0])", last);
        browser.Go("/");
        // At worst the page that there is none at this address: never around in a circle.
        browser.Waits("a page that stays", () => browser.Text("body").Length > 20);
        var address = browser.Address;
        browser.Waits("the page drawn", () => browser.All("main").Count > 0);
        Assert.Equal(address, browser.Address);
        Assert.Equal(1L, browser.Run("return performance.getEntriesByType('navigation').length"));
    }

    [Fact]
    public void A_screen_that_fails_is_replaced_by_itself()
    {
        using var browser = new Browser(demo.Shop);
        browser.Go("/settings");
        // What the program never writes: a draft of a profile without its fields, as a window that is closed might have left it.
        InDrafts(
            """
            store.put({ kind: 'profile', id: 'hedgerow-fair', tab: 'closed', at: 1, revision: 0, value: {}, theirs: null, held: true,
              queue: [{ value: {}, keep: null, sent: false }] }, 'profile:hedgerow-fair:closed')
            """
        );
        browser.Go("/platforms?id=hedgerow-fair");
        browser.Sees("This screen stopped working");
        browser.Sees("What you typed is kept");
        InDrafts("store.clear()");
        browser.ClickText("Reload");
        browser.Sees("Hedgerow Fair");
        Assert.DoesNotContain("stopped working", browser.Text("body"));

        void InDrafts(string change)
        {
            browser.Run(
                $"const open = indexedDB.open('tin-rabbit-drafts'); open.onsuccess = () => {{ const write = open.result.transaction('drafts', 'readwrite');"
                    + $" const store = write.objectStore('drafts'); {change}; write.oncomplete = () => {{ document.body.dataset.stored = '1' }} }}"
            );
            browser.Waits("the drafts to be stored", () => browser.All("body[data-stored]").Count == 1);
            browser.Run("delete document.body.dataset.stored");
        }
    }

    [Fact]
    public void A_backup_is_made_and_restored_from_the_settings()
    {
        using var shop = new RunningShop(demo: true);
        using var browser = new Browser(shop);
        browser.Go("/1/hedgerow-fair-us/write");
        browser.Waits("the title", () => browser.Value("Title").Length > 0);
        var before = browser.Value("Title");
        browser.Click("a[href='/settings']");
        browser.Sees("[data-testid=backups]", "Back up now");
        browser.ClickText("Back up now");
        browser.Sees("[data-testid=toast]", "Backed up and verified");
        browser.Go("/1/hedgerow-fair-us/write");
        browser.Write("Title", "Written after the backup");
        browser.Sees("[data-testid=save-state]", "Saved automatically");
        browser.Go("/settings");
        browser.Sees("[data-testid=backups]", "Manual");
        browser.Run("[...document.querySelectorAll('tr')].find(r => r.textContent.includes('Manual')).querySelector('button').click()");
        browser.Sees("[data-testid=backups]", "is backed up first");
        browser.Press(Keys.Enter);
        browser.Waits("the shop again", () => browser.Address.Contains("/listings"));
        browser.Go("/1/hedgerow-fair-us/write");
        browser.Waits("the title of before", () => browser.Value("Title") == before);
        browser.Go("/settings");
        browser.Sees("[data-testid=backups]", "Before a restore");
        Assert.Empty(browser.Complaints());
    }
}
