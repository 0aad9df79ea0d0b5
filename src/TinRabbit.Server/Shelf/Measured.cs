using TinRabbit.Core.Shapes;

namespace TinRabbit.Server.Shelf;

/// <summary>A market's numbers of a term.</summary>
/// <param name="Volume">Searches/mo; null when unknown.</param>
/// <param name="VolumeBelow">Where the volume is unknown, the bound that it is known to be below; null where nothing is known.</param>
/// <param name="Competition">Competing listings; null when unknown.</param>
/// <param name="TitlesHolding">Listings whose title holds the phrase; null when unknown.</param>
/// <param name="Popularity">Its rank among the terms that are searched for, from 1; null when unknown.</param>
/// <param name="ClickCost">Cost per click; null when unknown.</param>
/// <param name="Headroom">0–100, 50 being typical; null when unknown.</param>
/// <param name="Band">Its supply against the market's shelf; null when unknown.</param>
/// <param name="Months">Searches by month, oldest first; null when unknown.</param>
/// <param name="From">The month that <paramref name="Months"/> begins with.</param>
/// <param name="Source">The source; null without data.</param>
/// <param name="TakenAt">When.</param>
/// <param name="Kept">The numbers that are of an earlier reading, each with its source and day.</param>
/// <param name="Doubts">Why a number may be wrong.</param>
/// <param name="Bands">Each number against the market's shelf.</param>
/// <param name="Trend">How it has moved; null without searches by month.</param>
/// <param name="WebVolume">Searches/mo on the web of the same country; null where unknown.</param>
/// <param name="Clicks">Clicks on the shop's own listings after a search for it, in the time that the source covers; null when unknown.</param>
/// <param name="Orders">Orders that came of them; null when unknown.</param>
/// <param name="Sales">What those were worth, in the shop's currency; null when unknown.</param>
public sealed record Measured(
    long? Volume,
    long? VolumeBelow,
    long? Competition,
    long? TitlesHolding,
    decimal? ClickCost,
    int? Popularity,
    double? Headroom,
    Band? Band,
    IReadOnlyList<int>? Months,
    DateOnly? From,
    string? Source,
    DateTime? TakenAt,
    IReadOnlyList<KeptNumber> Kept,
    IReadOnlyList<Doubt> Doubts,
    Bands Bands,
    MonthTrend? Trend = null,
    long? WebVolume = null,
    long? Clicks = null,
    long? Orders = null,
    decimal? Sales = null
)
{
    /// <summary>Nothing is known.</summary>
    public static readonly Measured Nothing = Seen(null, [], MarketStatistics.Unknown);

    /// <summary>Sees a term against what is typical of its market, and against the other forms of it on the shelf.</summary>
    public static Measured Of(TermRow? term, ShelfColumns shelf)
    {
        if (term?.Reading is not { } r)
            return Nothing;
        var norm = shelf.Norm;
        var family = FamilyOf(term.Text)
            .Select(k => shelf.RowOf(k) is >= 0 and var row ? shelf[row].Volume : double.NaN)
            .Where(v => !double.IsNaN(v))
            .ToArray();
        var age = (shelf.Now - r.TakenAt).TotalDays;
        // A corrected reading is checked for its age only.
        var doubts = Core.Measures.Doubts.Check(
            r.Source == Shelves.ByHand
                ? new(null, null, null, null, age, [])
                : new(r.Volume, r.Competition, r.TitlesHolding, r.Months, age, family),
            norm
        );
        return Seen(r, doubts, norm);
    }

    private static Measured Seen(ReadingRow? r, IReadOnlyList<Doubt> doubts, MarketStatistics norm) =>
        new(
            r?.Volume,
            r?.VolumeBelow,
            r?.Competition,
            r?.TitlesHolding,
            r?.ClickCost,
            r?.Popularity,
            norm.HeadroomOf(r?.Volume, r?.Competition, r?.TitlesHolding),
            norm.BandOf(norm.SupplyOf(r?.Competition, r?.TitlesHolding)),
            r?.Months,
            r?.From,
            r?.Source,
            r?.TakenAt,
            r?.Kept ?? [],
            doubts,
            norm.BandsOf(r?.Volume, r?.Competition, r?.TitlesHolding, (double?)r?.ClickCost),
            MonthTrend.Of(r?.Months, r?.From),
            Clicks: r?.Clicks,
            Orders: r?.Orders,
            Sales: r?.Sales
        );

    /// <summary>The same with the searches on the web, where they are known.</summary>
    public Measured With(WebVolumes web, string key) =>
        web.ByKey.TryGetValue(key, out var volume)
            ? this with
            {
                WebVolume = volume,
                Bands = Bands with { WebVolume = web.Thirds?.BandOf(volume) },
            }
            : this;

    private static IEnumerable<string> FamilyOf(string text) => Family.OneChangeForms(text).Skip(1).Select(Tokens.Key).Distinct();
}
