using TinRabbit.Core.Watching;

namespace TinRabbit.Server.Features.Watch;

/// <summary>A term that is checked, and what the market found.</summary>
/// <param name="Volume">Searches/mo; null when unknown.</param>
/// <param name="IsPick">Whether it is a pick of the product that is worked on.</param>
/// <param name="At">When it was last checked; null before the first time.</param>
/// <param name="Found">Whether the listing was found then; null before the first time.</param>
/// <param name="Page">The page of results that the rank is on; null without a rank.</param>
/// <param name="Before">What the check before found; null where there was none.</param>
/// <param name="Flip">Whether that changed.</param>
/// <param name="Predicted">Whether the listing should have been found then, by the platform's profile.</param>
/// <param name="Why">Why it was not found; null where it was.</param>
/// <param name="Because">For <see cref="NotFoundReason.WordMissing"/>: the words.</param>
/// <param name="Near">Forms of them that the listing has and the platform does not fold.</param>
/// <param name="IsComparable">Whether it tells of the text that the market has now, and of nothing that it has yet to take in.</param>
/// <param name="IsInDraft">Whether the listing as it is now holds the term.</param>
public sealed record FoundTerm(
    int Id,
    string Key,
    string Text,
    long? Volume,
    bool IsPick,
    DateTime? At,
    bool? Found,
    int? Rank,
    int? Page,
    long? Results,
    FoundBefore? Before,
    Flip Flip,
    bool Predicted,
    NotFoundReason? Why,
    IReadOnlyList<string> Because,
    IReadOnlyList<NearMiss> Near,
    bool IsComparable,
    bool IsInDraft
)
{
    /// <summary>Whether the platform's profile predicted something else.</summary>
    public bool IsUnexpected => IsComparable && Found != Predicted;
}
