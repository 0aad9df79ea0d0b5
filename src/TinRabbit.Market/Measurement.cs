namespace TinRabbit.Market;

/// <summary>One measurement of a term, as the market gives it. Null is unknown.</summary>
/// <param name="Volume">Searches a month: the mean of the last twelve whole months, rounded as the market rounds.</param>
/// <param name="Competition">Listings that its search finds.</param>
/// <param name="TitlesHolding">Listings whose title holds the phrase.</param>
/// <param name="ClickCost">What a click costs, in the market's money; null where nobody advertises, too.</param>
/// <param name="Months">Searches by month, oldest first; the last is the last whole month.</param>
/// <param name="From">The month that the history begins with.</param>
public sealed record Measurement(
    long? Volume,
    long? Competition,
    long? TitlesHolding,
    decimal? ClickCost,
    IReadOnlyList<int>? Months,
    DateOnly? From
)
{
    /// <summary>The source does not know the term, which is not the same as that nobody types it.</summary>
    public static readonly Measurement Unknown = new(null, null, null, null, null, null);
}
