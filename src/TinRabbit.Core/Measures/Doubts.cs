using TinRabbit.Core.Texts;

namespace TinRabbit.Core.Measures;

/// <summary>Why a number looks wrong.</summary>
public enum DoubtKind
{
    /// <summary>More titles hold the phrase than listings compete.</summary>
    Titles,

    /// <summary>Very much searched, and hardly any title holds it.</summary>
    Untitled,

    /// <summary>Competition far from what such a volume usually has here.</summary>
    Competition,

    /// <summary>The forms of the term share one volume: a source that groups them.</summary>
    Grouped,

    /// <summary>The history says another volume.</summary>
    History,

    /// <summary>Measured too long ago.</summary>
    Old,
}

/// <summary>A doubt about a reading.</summary>
/// <param name="Kind">Which.</param>
/// <param name="Why">The reason, as a sentence with its figures.</param>
public sealed record Doubt(DoubtKind Kind, string Why);

/// <summary>What is looked at to doubt a reading.</summary>
/// <param name="Volume">Searches/mo; null when unknown.</param>
/// <param name="Competition">Competing listings; null when unknown.</param>
/// <param name="TitlesHolding">Titles holding the phrase; null when unknown.</param>
/// <param name="Months">Searches by month, oldest first; null when unknown.</param>
/// <param name="Age">Days since it was measured; null when unknown.</param>
/// <param name="FamilyVolumes">Known volumes of the other forms of the term.</param>
public sealed record Suspect(double? Volume, double? Competition, double? TitlesHolding, IReadOnlyList<int>? Months, double? Age, IReadOnlyList<double> FamilyVolumes);

/// <summary>Finds readings that look wrong next to similar terms (docs/model.md, "Numbers that look wrong").</summary>
public static class Doubts
{
    private const double FewTitles = 5;
    private const double FarOff = 3;
    private const double OldDays = 90;
    private const int YearMonths = 12;

    /// <summary>The doubts about a reading, against what is typical of its market.</summary>
    public static IReadOnlyList<Doubt> About(Suspect reading, Norm norm)
    {
        var doubts = new List<Doubt>();
        var (volume, competition, titles) = (reading.Volume, reading.Competition, reading.TitlesHolding);
        if (titles > competition)
            Add(DoubtKind.Titles, ReadingTexts.MoreTitlesThanListings(titles.Value, competition.Value));
        if (volume >= norm.TopTenthFrom && volume > 0 && titles <= FewTitles)
            Add(DoubtKind.Untitled, ReadingTexts.FewTitles(norm.TopTenthFrom.Value, titles.Value));
        if (volume is { } v && competition is { } c && norm.Usual?.Off(v, c) is { } off && Math.Abs(off) > FarOff)
            Add(DoubtKind.Competition, ReadingTexts.UnusualCompetition(c, v, off));
        if (volume > 0 && reading.FamilyVolumes.Count > 0 && reading.FamilyVolumes.All(f => f == volume))
            Add(DoubtKind.Grouped, ReadingTexts.SameForAllVariants(volume.Value));
        if (volume is { } stated && reading.Months is { Count: > 0 } months && months.TakeLast(YearMonths).Average() is var mean && (mean > 2 * stated || stated > 2 * mean))
            Add(DoubtKind.History, ReadingTexts.HistoryDiffers(Math.Min(YearMonths, months.Count), mean, stated));
        if (reading.Age > OldDays)
            Add(DoubtKind.Old, ReadingTexts.Old(reading.Age.Value));
        return doubts;

        void Add(DoubtKind kind, string why) => doubts.Add(new(kind, why));
    }
}
