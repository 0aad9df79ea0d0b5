using TinRabbit.Server.Shelf;

namespace TinRabbit.Server.Files.Documents;

/// <summary>What a source said of a term at one time; null is unknown.</summary>
/// <param name="Volume">Searches/mo.</param>
/// <param name="VolumeBelow">Searches/mo are fewer than this, where the source says no more.</param>
/// <param name="From">The first of <paramref name="Months"/>.</param>
/// <param name="Kept">Numbers that an older source gave.</param>
public sealed record DocumentReading(
    [MaxLength(Bounds.NameLength)] string Source,
    DateTime TakenAt,
    long? Volume = null,
    long? VolumeBelow = null,
    long? Competition = null,
    long? TitlesHolding = null,
    decimal? ClickCost = null,
    [MaxLength(Bounds.Months)] IReadOnlyList<int>? Months = null,
    DateOnly? From = null,
    [MaxLength(20)] IReadOnlyList<KeptNumber>? Kept = null,
    int? Popularity = null,
    long? Clicks = null,
    long? Orders = null,
    decimal? Sales = null
);
