namespace TinRabbit.Core.Measures;

/// <summary>Finds readings that look wrong next to similar terms (docs/model.md, "Numbers that look wrong").</summary>
public static class Doubts
{
    private const double FewTitles = 5;
    private const double FarOff = 3;
    private const double OldDays = 90;
    private const double FewestSearches = 300;
    private const double SearchesPerTitle = 500;
    private const double FewShare = 0.1;
    private const int YearMonths = 12;

    /// <summary>The doubts about a reading, against what is typical of its market.</summary>
    public static IReadOnlyList<Doubt> Check(ReadingToCheck reading, MarketStatistics norm)
    {
        var doubts = new List<Doubt>();
        var (volume, competition, titles) = (reading.Volume, reading.Competition, reading.TitlesHolding);
        if (titles > competition)
            Add(DoubtKind.Titles, DoubtTexts.MoreTitlesThanListings(titles.Value, competition.Value));
        if (volume >= norm.TopTenthFrom && volume > 0 && titles <= FewTitles)
            Add(DoubtKind.Untitled, DoubtTexts.FewTitles(norm.TopTenthFrom.Value, titles.Value));
        if (volume is { } v && competition is { } c && norm.CompetitionLine?.Off(v, c) is { } off && Math.Abs(off) > FarOff)
            Add(DoubtKind.Competition, DoubtTexts.UnusualCompetition(c, v, off));
        if (volume >= FewestSearches && titles is { } t)
        {
            if (t * SearchesPerTitle < volume)
                Add(DoubtKind.FewTitles, DoubtTexts.FewTitlesForSearches(t, volume.Value));
            else if (norm.TitlesLine?.Expected(volume.Value) is { } expected && t < expected * FewShare)
                Add(DoubtKind.FewTitles, DoubtTexts.FewTitlesForShelf(t, expected));
        }

        if (volume > 0 && reading.FamilyVolumes.Count > 0 && reading.FamilyVolumes.All(f => f == volume))
            Add(DoubtKind.Grouped, DoubtTexts.SameForAllVariants(volume.Value));
        if (
            volume is { } stated
            && reading.Months is { Count: > 0 } months
            && months.TakeLast(YearMonths).Average() is var mean
            && (mean > 2 * stated || stated > 2 * mean)
        )
            Add(DoubtKind.History, DoubtTexts.HistoryDiffers(Math.Min(YearMonths, months.Count), mean, stated));
        if (reading.Age > OldDays)
            Add(DoubtKind.Old, DoubtTexts.Old(reading.Age.Value));
        return doubts;

        void Add(DoubtKind kind, string why) => doubts.Add(new(kind, why));
    }
}
