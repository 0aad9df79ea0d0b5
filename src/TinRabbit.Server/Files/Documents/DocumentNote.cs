using TinRabbit.Server.Journal;

namespace TinRabbit.Server.Files.Documents;

/// <summary>A change note.</summary>
/// <param name="CountsFrom">From when its effect counts.</param>
/// <param name="Market">The market that it is about; null for all.</param>
/// <param name="Term">The key of the term that it is about; null where it is about none.</param>
/// <param name="Sent">The place, from 0, of the text that it tells of among the listing's that went live; null where it tells of none.</param>
public sealed record DocumentNote(
    DateTime At,
    DateTime CountsFrom,
    IReadOnlyList<NoteKind> Kinds,
    [MaxLength(Bounds.NoteLength)] string Text,
    string? Market = null,
    [Term] string? Term = null,
    int? Sent = null
);
