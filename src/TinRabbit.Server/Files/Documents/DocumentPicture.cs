namespace TinRabbit.Server.Files.Documents;

/// <summary>A picture.</summary>
/// <param name="Shows">What it shows; null leaves what the shop has.</param>
/// <param name="IsLocked">Whether its alt text is locked; null leaves what the shop has.</param>
/// <param name="File">The name of its file in the folder pictures; null leaves the file that the shop has.</param>
public sealed record DocumentPicture(
    [MaxLength(Bounds.NoteLength)] string Alt,
    [MaxLength(Bounds.NoteLength)] string? Shows = null,
    [MaxLength(Bounds.NameLength)] string? File = null,
    bool? IsLocked = null
);
