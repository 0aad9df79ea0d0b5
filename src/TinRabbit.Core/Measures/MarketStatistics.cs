namespace TinRabbit.Core.Measures;

/// <summary>Statistics of a market's shelf.</summary>
/// <param name="Centre">Median of log10(volume / max(1, supply)) where volume is above zero; null without such a reading.</param>
/// <param name="Readings">How many readings it rests on.</param>
public sealed record MarketStatistics(double? Centre, int Readings)
{
    /// <summary>The norm of a shelf nobody has measured.</summary>
    public static readonly MarketStatistics Unknown = new(null, 0);

    /// <summary>What stands for supply in centre and terciles.</summary>
    public Supply Supply { get; init; }

    /// <summary>Whether the supply was chosen, by the seller or by the shelf when it had readings enough: it is chosen once.</summary>
    public bool IsSupplyChosen { get; init; }

    /// <summary>How many exact-title matches a volume usually has; null with fewer than 20 readings that have both.</summary>
    public TitlesLine? TitlesLine { get; init; }

    /// <summary>Highest supply of the lowest third; null without readings.</summary>
    public double? LowTo => SupplyThirds?.LowTo;

    /// <summary>Highest supply of the middle third; null without readings.</summary>
    public double? MediumTo => SupplyThirds?.MediumTo;

    private Terciles? SupplyThirds => Supply == Supply.ExactTitles ? TitlesThirds : CompetitionThirds;

    /// <summary>Thirds of the searches; null without any, as the other thirds.</summary>
    public Terciles? VolumeThirds { get; init; }

    /// <summary>Thirds of the competing listings.</summary>
    public Terciles? CompetitionThirds { get; init; }

    /// <summary>Thirds of the exact-title matches.</summary>
    public Terciles? TitlesThirds { get; init; }

    /// <summary>Thirds of the cost per click.</summary>
    public Terciles? ClickCostThirds { get; init; }

    /// <summary>Thirds of log10(volume / max(1, supply)), which headroom is made of where the volume is above zero.</summary>
    public Terciles? RatioThirds { get; init; }

    /// <summary>Lowest volume of the top tenth; null without volumes.</summary>
    public double? TopTenthFrom { get; init; }

    /// <summary>The regression line of log10 competition on log10 volume; null with fewer than 30 readings that have both.</summary>
    [System.Text.Json.Serialization.JsonPropertyName("usual")] // as it is stored
    public RegressionLine? CompetitionLine { get; init; }

    /// <summary>A straight line by least squares, with how far readings usually lie from it.</summary>
    /// <param name="At0">Its height at log10 volume 0.</param>
    /// <param name="Slope">Its slope.</param>
    /// <param name="Middle">Median of the residuals.</param>
    /// <param name="Spread">Robust standard deviation of the residuals: 1.4826 × the median absolute deviation.</param>
    public sealed record RegressionLine(double At0, double Slope, double Middle, double Spread)
    {
        /// <summary>By how many robust standard deviations a reading lies above (or below) the line; null where it cannot be said.</summary>
        public double? Off(double volume, double competition) =>
            Spread <= 0 || volume <= 0 ? null : (Math.Log10(Math.Max(1, competition)) - At0 - Slope * Math.Log10(volume) - Middle) / Spread;
    }

    private const int FewestForLine = 30;

    /// <summary>The supply that a market should go by: whichever more readings have, competing listings where as many do.</summary>
    public static Supply UsualSupply(IEnumerable<ReadingNumbers> readings)
    {
        var (competition, titles) = (0, 0);
        foreach (var reading in readings)
        {
            competition += reading.Competition is null ? 0 : 1;
            titles += reading.Titles is null ? 0 : 1;
        }

        return titles > competition ? Supply.ExactTitles : Supply.Competition;
    }

    /// <summary>Takes the norm of a shelf's readings.</summary>
    /// <param name="readings">The readings of the shelf.</param>
    /// <param name="supply">What stands for supply.</param>
    public static MarketStatistics Compute(IEnumerable<ReadingNumbers> readings, Supply supply = Supply.Competition)
    {
        var volumes = new List<double>();
        var competitions = new List<double>();
        var allTitles = new List<double>();
        var costs = new List<double>();
        var ratios = new List<double>();
        var titled = new List<(double, double)>();
        var (x, y) = (new List<double>(), new List<double>());
        var count = 0;
        foreach (var reading in readings)
        {
            count++;
            if (reading.Volume is { } known)
                volumes.Add(known);
            if (reading.Competition is { } listings)
                competitions.Add(listings);
            if (reading.Titles is { } matches)
                allTitles.Add(matches);
            if (reading.ClickCost is { } cost)
                costs.Add(cost);
            if (reading.Volume is not (> 0 and var volume))
                continue;
            if (reading.SupplyOf(supply) is { } s)
                ratios.Add(TermMeasures.Ratio(volume, s));
            if (reading.Titles is { } titles)
                titled.Add((volume, titles));
            if (reading.Competition is { } competition)
            {
                x.Add(Math.Log10(volume));
                y.Add(Math.Log10(Math.Max(1, competition)));
            }
        }

        return new(QuickSelect.Median(ratios), count)
        {
            Supply = supply,
            VolumeThirds = Terciles.Of(volumes),
            CompetitionThirds = Terciles.Of(competitions),
            TitlesThirds = Terciles.Of(allTitles),
            ClickCostThirds = Terciles.Of(costs),
            RatioThirds = Terciles.Of(ratios),
            TitlesLine = TitlesLine.Fit(titled),
            TopTenthFrom = volumes.Count == 0 ? null : QuickSelect.Select(volumes, Math.Max(0, (int)Math.Ceiling(volumes.Count * 0.9) - 1)),
            CompetitionLine = x.Count < FewestForLine ? null : Fit(x, y),
        };
    }

    /// <summary>What stands for a term's supply here; null when unknown.</summary>
    public double? SupplyOf(double? competition, double? titles) => Supply == Supply.ExactTitles ? titles : competition;

    /// <summary>A term's headroom here, 0–100; null when something it is made of is unknown.</summary>
    public double? HeadroomOf(double? volume, double? competition, double? titles) =>
        TermMeasures.Headroom(volume, SupplyOf(competition, titles), Centre);

    /// <summary>The band of a supply; null when it or the shelf is unknown.</summary>
    public Band? BandOf(double? supply) => SupplyThirds?.BandOf(supply);

    /// <summary>The bands of a term's numbers here; null where the number or the shelf is unknown.</summary>
    public Bands BandsOf(double? volume, double? competition, double? titles, double? clickCost) =>
        new(
            VolumeThirds?.BandOf(volume),
            CompetitionThirds?.BandOf(competition),
            TitlesThirds?.BandOf(titles),
            ClickCostThirds?.BandOf(clickCost),
            volume is > 0 and var v && SupplyOf(competition, titles) is { } s ? RatioThirds?.BandOf(TermMeasures.Ratio(v, s)) : null
        );

    private static RegressionLine Fit(List<double> x, List<double> y)
    {
        var (mx, my) = (x.Average(), y.Average());
        var (sxy, sxx) = (0.0, 0.0);
        for (var i = 0; i < x.Count; i++)
        {
            sxy += (x[i] - mx) * (y[i] - my);
            sxx += (x[i] - mx) * (x[i] - mx);
        }

        var slope = sxx > 0 ? sxy / sxx : 0;
        var at0 = my - slope * mx;
        var left = y;
        for (var i = 0; i < x.Count; i++)
            left[i] = y[i] - at0 - slope * x[i];
        var middle = QuickSelect.Median(left)!.Value;
        for (var i = 0; i < left.Count; i++)
            left[i] = Math.Abs(left[i] - middle);
        return new(at0, slope, middle, 1.4826 * QuickSelect.Median(left)!.Value);
    }
}
