namespace TinRabbit.Server.Pictures;

/// <summary>A picture as it is stored.</summary>
/// <param name="Alt">Its alt text.</param>
/// <param name="Shows">What it shows, in the seller's words.</param>
/// <param name="IsLocked">Whether its alt text is locked: something else depends on it, such as a shop that swaps pictures by it.</param>
/// <param name="File">The name of its file; null where there is none.</param>
public sealed record OnePicture(string Alt, string Shows, string? File, bool IsLocked = false)
{
    /// <summary>The state of a picture's row.</summary>
    public static OnePicture Of(PictureRow row) => new(row.Description, row.Shows, row.File, row.IsLocked);
}
