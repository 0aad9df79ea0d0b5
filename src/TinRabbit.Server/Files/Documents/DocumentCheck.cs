using TinRabbit.Server.Journal;

namespace TinRabbit.Server.Files.Documents;

/// <summary>A found check.</summary>
/// <param name="Problem">Why it failed; null where it did not.</param>
public sealed record DocumentCheck(
    string Market,
    DateTime At,
    DateOnly Day,
    [MaxLength(Bounds.NameLength)] string Source,
    CheckState State,
    bool IsDaily = false,
    [MaxLength(Bounds.NoteLength)] string? Problem = null,
    [MaxLength(Bounds.FollowedTerms)] IReadOnlyList<DocumentFind>? Finds = null
);
