namespace TinRabbit.Server.Tests;

/// <summary>A fixed part of what <c>./tin bench fuzz</c> does for as long as one likes.</summary>
public class FuzzTests
{
    // No password is asked for on this computer, samples are a program of their own, and nothing else was deleted.
    private static readonly string[] NotAsked = ["ChangePassword", "DeleteSampleData", "OpenSampleShop"];

    [Theory]
    [InlineData(1)]
    [InlineData(2)]
    public async Task Whatever_is_sent_to_any_endpoint_the_answer_is_in_words_and_in_time(int seed)
    {
        using var shop = new TestShop(demo: true);
        var fuzz = new Fuzz(shop.Client, await shop.Get("/openapi/v1.json"), seed);
        var refused = await fuzz.AskKnown();
        Assert.True(refused.Count == 0, string.Join("\n", refused.Select(f => $"{f.Asked}\n    {f.Wrong}")));
        Assert.Equal(NotAsked, fuzz.Endpoints.Except(fuzz.Known).Order());
        var found = await fuzz.Run(timesEach: 14);
        Assert.True(found.Count == 0, string.Join("\n", found.Take(20).Select(f => $"{f.Asked}\n    {f.Wrong}")));
        Assert.True(fuzz.Asked > 1000, $"only {fuzz.Asked} were asked");
        Assert.True(fuzz.Done > fuzz.Asked / 10, $"only {fuzz.Done} of {fuzz.Asked} came past the door");
        // And the shop is there still.
        Assert.Equal(7, (await shop.Get("/api/shop"))["products"]!.AsArray().Count(p => p!["id"]!.GetValue<int>() <= 7));
    }
}
