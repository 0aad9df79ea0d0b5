namespace TinRabbit.Server.Hosting;

/// <summary>Where the sample shop is.</summary>
public sealed record SampleShopView(string Address);

/// <summary>Opens the demo shop beside the seller's own.</summary>
internal static class SampleShopApi
{
    public static void MapSampleShop(this IEndpointRouteBuilder app) =>
        app.MapPost("/api/sample-shop", OpenSampleShop).WithTags("Shop").DisableRequestTimeout();

    private static async Task<SampleShopView> OpenSampleShop(SampleShop shop, StartOptions options, CancellationToken stop) =>
        options.OnlyThisComputer && !options.Demo
            ? new(await shop.Open(stop))
            : throw new InvalidInputException([
                new("sampleShop", "The sample shop opens only on the computer that Tin Rabbit runs on, beside a shop of your own."),
            ]);
}
