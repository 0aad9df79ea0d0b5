using Microsoft.EntityFrameworkCore;
using TinRabbit.Server.Listings;
using TinRabbit.Server.Rivals;
using TinRabbit.Server.Storage;

namespace TinRabbit.Server.Demo;

/// <summary>What the made-up buyers of the demo wrote about the seller's own listings: one or two of a few sentences each.</summary>
internal static class DemoReviews
{
    private const string Source = "Sample data";
    private const int Count = 120;

    private static readonly (string Product, string Platform, (double Stars, string Text)[] Sentences)[] All =
    [
        (
            "Window feeder",
            "hedgerow-fair",
            [
                (5, "The oak perch is beautiful."),
                (5, "A handwritten card lay in the parcel."),
                (5, "Handmade, and you can see it."),
                (4, "The oak perch makes it look like furniture."),
                (5, "Made by people who watch birds themselves."),
                (3, "It is smaller than the photo makes it look."),
                (5, "The handwritten card made us smile."),
                (5, "Exactly as described."),
                (4, "A robin sat on the oak perch on the first morning."),
                (5, "The seller answered within an hour."),
                (4, "Simple, honest and handmade."),
            ]
        ),
        (
            "Wren nest box, cedar",
            "hedgerow-fair",
            [
                (5, "The brass screws are a lovely touch."),
                (5, "Just right for wrens, and too small for sparrows."),
                (5, "Easy to clean in autumn, thanks to the brass screws."),
                (5, "The little door is just right for wrens."),
                (4, "It came quickly and well packed, with a handwritten card."),
                (5, "A handwritten card lay in the parcel."),
                (3, "It is smaller than the photo makes it look."),
                (5, "We hung it by the shed in March."),
                (5, "The brass screws turn without a tool."),
                (5, "Exactly as described."),
                (4, "A box that will last for years."),
            ]
        ),
    ];

    /// <summary>Adds them to a new demo shop.</summary>
    public static async Task Add(TinContext db)
    {
        foreach (var (product, platform, sentences) in All)
        {
            var listing = await db.Listings.FirstAsync(l => l.Product.Name == product && l.PlatformId == platform);
            for (var i = 0; i < Count; i++)
            {
                var first = sentences[i % sentences.Length];
                var second = sentences[(i * 3 + 2) % sentences.Length];
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
