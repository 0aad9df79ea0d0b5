using System.Globalization;

namespace TinRabbit.Core.Measures;

/// <summary>Why a number does not sit with its neighbours.</summary>
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
/// <param name="Volume">Searches a month; null when unknown.</param>
/// <param name="Competition">Competing listings; null when unknown.</param>
/// <param name="TitlesHolding">Titles holding the phrase; null when unknown.</param>
/// <param name="Months">Searches by month, oldest first; null when unknown.</param>
/// <param name="Age">Days since it was measured; null when unknown.</param>
/// <param name="FamilyVolumes">Known volumes of the other forms of the term.</param>
public sealed record Suspect(double? Volume, double? Competition, double? TitlesHolding, IReadOnlyList<int>? Months, double? Age, IReadOnlyList<double> FamilyVolumes);

/// <summary>Finds readings that do not sit with their neighbours (docs/model.md, "Numbers to doubt").</summary>
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
            Add(DoubtKind.Titles, $"{N(titles)} titles hold the phrase, but only {N(competition)} listings are said to compete");
        if (volume >= norm.TopTenthFrom && volume > 0 && titles <= FewTitles)
            Add(DoubtKind.Untitled, $"its searches are in the top tenth of this shelf ({N(norm.TopTenthFrom)} and more), yet {(titles == 0 ? "no title holds" : $"only {N(titles)} titles hold")} it");
        if (volume is { } v && competition is { } c && norm.Usual?.Off(v, c) is { } off && Math.Abs(off) > FarOff)
            Add(DoubtKind.Competition, $"{N(c)} listings is far {(off > 0 ? "more" : "less")} than terms with about {N(v)} searches have here ({Math.Abs(off).ToString("F1", CultureInfo.InvariantCulture)} times the usual spread away)");
        if (volume > 0 && reading.FamilyVolumes.Count > 0 && reading.FamilyVolumes.All(f => f == volume))
            Add(DoubtKind.Grouped, $"all its known forms are said to have {N(volume)}: the source counts them together");
        if (volume is { } stated && reading.Months is { Count: > 0 } months && months.TakeLast(YearMonths).Average() is var mean && (mean > 2 * stated || stated > 2 * mean))
            Add(DoubtKind.History, $"its last {Math.Min(YearMonths, months.Count)} months have a mean of {N(Math.Round(mean))}, not {N(stated)}");
        if (reading.Age > OldDays)
            Add(DoubtKind.Old, $"it was measured {N(Math.Floor(reading.Age.Value))} days ago");
        return doubts;

        void Add(DoubtKind kind, string why) => doubts.Add(new(kind, why));
        static string N(double? number) => number?.ToString("#,0", CultureInfo.InvariantCulture) ?? "unknown";
    }
}
