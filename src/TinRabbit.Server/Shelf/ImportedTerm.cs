namespace TinRabbit.Server.Shelf;

/// <summary>A term to import, in the columns of the tables.</summary>
public readonly record struct ImportedTerm(
    string Text,
    string Key,
    long? Volume,
    long? VolumeBelow,
    long? Competition,
    long? TitlesHolding,
    decimal? ClickCost,
    int[]? Months,
    int? Popularity = null,
    long? Clicks = null,
    long? Orders = null,
    decimal? Sales = null
);
