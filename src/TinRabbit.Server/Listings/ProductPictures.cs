using TinRabbit.Server.Pictures;

namespace TinRabbit.Server.Listings;

/// <summary>The pictures of a product, read and replaced as a whole.</summary>
internal static class ProductPictures
{
    /// <summary>They as they are stored, in order.</summary>
    public static IReadOnlyList<OnePicture> PictureStates(this ProductRow product) =>
        [.. product.Pictures.OrderBy(p => p.Order).Select(p => new OnePicture(p.Description, p.Shows, p.File))];

    /// <summary>Replaces them; the revision of the alt texts moves on.</summary>
    public static void SetPictures(this ProductRow product, IReadOnlyList<OnePicture> pictures)
    {
        product.Pictures.Clear();
        product.Pictures.AddRange(
            pictures.Select(
                (p, i) =>
                    new PictureRow
                    {
                        Description = p.Alt,
                        Shows = p.Shows,
                        File = p.File,
                        Order = i,
                    }
            )
        );
        product.PicturesRevision++;
    }

    /// <summary>Replaces the alt texts; a picture whose place is kept keeps its file.</summary>
    public static void SetAltTexts(this ProductRow product, IReadOnlyList<string> alts)
    {
        var before = product.PictureStates();
        product.SetPictures([.. alts.Select((alt, i) => i < before.Count ? before[i] with { Alt = alt } : new OnePicture(alt, "", null))]);
    }
}
