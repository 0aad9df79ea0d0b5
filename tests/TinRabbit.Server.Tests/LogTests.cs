namespace TinRabbit.Server.Tests;

/// <summary>The log says what the program did, and none of the seller's texts.</summary>
public class LogTests
{
    [Fact]
    public async Task The_log_can_be_downloaded_and_holds_no_text_of_the_sellers()
    {
        using var shop = new TestShop();
        const string secret = "xylophone";
        var product = await shop.AddProduct($"Walnut {secret}");
        await shop.Pick(product, [$"{secret} for children"]);
        await shop.Dig(product, "hedgerow-fair-us", $"{secret} stand");
        await shop.Post(
            $"/api/products/{product}/dig",
            new
            {
                marketId = "nowhere",
                text = secret,
                parentId = (int?)null,
            },
            400
        );
        await shop.Get($"/api/markets/hedgerow-fair-us/term?text={secret}");
        var log = await shop.Client.GetStringAsync("/api/log");
        Assert.Contains("The shop is ready", log);
        Assert.DoesNotContain("Request starting", log);
        Assert.DoesNotContain("SELECT", log);
        Assert.DoesNotContain(secret, log, StringComparison.OrdinalIgnoreCase);
    }
}
