namespace TinRabbit.Server.Files.Documents;

/// <summary>What happened with a listing. An import adds what the shop lacks of it, and removes nothing.</summary>
/// <param name="ArchivedAt">When it was archived; null where it is not.</param>
/// <param name="Dismissed">Findings that the seller set aside.</param>
/// <param name="Sent">Texts that went live.</param>
/// <param name="Notes">Change notes about it.</param>
/// <param name="Watches">How it is watched, by market.</param>
/// <param name="Followed">Terms that it is checked for.</param>
/// <param name="Figures">Views, clicks and sales by day.</param>
public sealed record DocumentRecords(
    DateTime? ArchivedAt = null,
    IReadOnlyList<DocumentVersion>? Versions = null,
    IReadOnlyList<DocumentDismissal>? Dismissed = null,
    IReadOnlyList<DocumentSent>? Sent = null,
    [MaxLength(Bounds.Notes)] IReadOnlyList<DocumentNote>? Notes = null,
    IReadOnlyList<DocumentWatch>? Watches = null,
    IReadOnlyList<DocumentFollowed>? Followed = null,
    [MaxLength(Bounds.WatchRows)] IReadOnlyList<DocumentCheck>? Checks = null,
    [MaxLength(Bounds.WatchRows)] IReadOnlyList<DocumentFigure>? Figures = null,
    [MaxLength(Bounds.Rivals)] IReadOnlyList<DocumentRival>? Rivals = null,
    [MaxLength(2 * Bounds.Reviews)] IReadOnlyList<DocumentReview>? Reviews = null
);
