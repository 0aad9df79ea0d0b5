namespace TinRabbit.Server.Features.Watch;

/// <summary>A listing day by day: each list has one entry a day, null where nothing is known.</summary>
/// <param name="From">The first day; null where nothing is known of any.</param>
/// <param name="FirstPages">The share of the checked terms that were on the first page, 0–1.</param>
/// <param name="Terms">The rank of each term by day, 0 where it was not found; those that are searched most first.</param>
/// <param name="Sources">Where the figures came from.</param>
public sealed record HistoryView(
    DateOnly? From,
    int Days,
    IReadOnlyList<long?> Views,
    IReadOnlyList<long?> Clicks,
    IReadOnlyList<long?> Sales,
    IReadOnlyList<double?> FirstPages,
    IReadOnlyList<TermRanks> Terms,
    IReadOnlyList<string> Sources
);
