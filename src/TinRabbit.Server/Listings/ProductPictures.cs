using TinRabbit.Server.Pictures;

namespace TinRabbit.Server.Listings;

/// <summary>The pictures of a product, read and replaced as a whole.</summary>
internal static class ProductPictures
{
    /// <summary>They as they are stored, in order.</summary>
    public static IReadOnlyList<OnePicture> PictureStates(this ProductRow product) =>
        [.. product.Pictures.OrderBy(p => p.Order).Select(OnePicture.Of)];

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
                        IsLocked = p.IsLocked,
                        Order = i,
                    }
            )
        );
        product.PicturesRevision++;
    }

    /// <summary>Replaces the alt texts; a picture whose place is kept keeps its file.</summary>
    /// <exception cref="InvalidInputException">One that is locked would change.</exception>
    public static void SetAltTexts(this ProductRow product, IReadOnlyList<string> alts)
    {
        var before = product.PictureStates();
        for (var i = 0; i < before.Count; i++)
            if (before[i].IsLocked && (i >= alts.Count || alts[i] != before[i].Alt))
                throw new InvalidInputException([
                    new(
                        "pictures",
                        $"The alt text of picture {i + 1} is locked, and stays in its place. Unlock it first, under Web shop, Alt text."
                    ),
                ]);
        product.SetPictures([.. alts.Select((alt, i) => i < before.Count ? before[i] with { Alt = alt } : new OnePicture(alt, "", null))]);
    }
}
