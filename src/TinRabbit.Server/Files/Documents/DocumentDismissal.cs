namespace TinRabbit.Server.Files.Documents;

/// <summary>A finding that the seller set aside.</summary>
/// <param name="Key">What names it among the listing's findings.</param>
public sealed record DocumentDismissal([MaxLength(Bounds.NoteLength)] string Key, DateTime At);
