using TinRabbit.Server.Listings;
using TinRabbit.Server.Rivals;

namespace TinRabbit.Server.Demo;

/// <summary>What the made-up buyers of the demo wrote about the seller's own listings: one or two of a few sentences each.</summary>
internal static class DemoReviews
{
    private const string Source = "Sample data";
    private const int Count = 120;

    /// <summary>Adds them to a new demo shop.</summary>
    public static async Task Add(TinContext db)
    {
        foreach (var (product, platform, sentences) in DemoShop.Shipped.Reviews)
        {
            var listing = await db.Listings.FirstAsync(l => l.Product.Name == product && l.PlatformId == platform);
            for (var i = 0; i < Count; i++)
            {
                var first = sentences[i % sentences.Count];
                var second = sentences[(i * 3 + 2) % sentences.Count];
                var isLong = i % 2 == 0 && second != first;
                db.Reviews.Add(
                    new()
                    {
                        ListingId = listing.Id,
                        Text = isLong ? $"{first.Text} {second.Text}" : first.Text,
                        Stars = isLong ? Math.Round((first.Stars + second.Stars) / 2, MidpointRounding.AwayFromZero) : first.Stars,
                        Source = Source,
                    }
                );
            }
        }

        await db.SaveChangesAsync();
    }
}
