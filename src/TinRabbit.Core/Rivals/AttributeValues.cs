using MathNet.Numerics.Distributions;
using TinRabbit.Core.Texts;
using TinRabbit.Core.Words;

namespace TinRabbit.Core.Rivals;

/// <summary>Which values of attributes rivals fill, and how those that do differ from those that do not (docs/model.md, "Attributes of rivals").</summary>
public static class AttributeValues
{
    /// <summary>The fewest rivals with a value, and without it, that are compared.</summary>
    public const int Least = 8;

    private const double Confidence = 0.95;

    /// <summary>Every value that some rival has, the most usual first.</summary>
    public static IReadOnlyList<AttributeValue> Of(IReadOnlyList<RivalListing> rivals) =>
        [
            .. rivals
                .SelectMany((r, i) => r.Attributes.SelectMany(a => a.Value.Select(v => (a.Key, Value: v.Trim(), Rival: i))))
                .Where(v => Tokens.Key(v.Value).Length > 0)
                .GroupBy(v => (v.Key, Word: Tokens.Key(v.Value)))
                .Select(g => Compared(g.Key.Key, MostUsual(g.Select(v => v.Value)), [.. g.Select(v => v.Rival).Distinct()], rivals))
                .OrderByDescending(v => v.Held)
                .ThenBy(v => v.Attribute, StringComparer.Ordinal)
                .ThenBy(v => v.Value, StringComparer.Ordinal),
        ];

    private static string MostUsual(IEnumerable<string> written) =>
        written.CountBy(w => w).OrderByDescending(w => w.Value).ThenBy(w => w.Key, StringComparer.Ordinal).First().Key;

    private static AttributeValue Compared(string attribute, string value, HashSet<int> holders, IReadOnlyList<RivalListing> rivals)
    {
        var differences = new List<FigureDifference>();
        foreach (var figure in Enum.GetValues<RivalFigure>())
        {
            var known = rivals
                .Select((r, i) => (Has: holders.Contains(i), Number: NumberOf(r, figure)))
                .Where(r => r.Number is not null)
                .ToList();
            if (known.Count > 0)
                differences.Add(
                    Difference(
                        figure,
                        $"{attribute}: {value}",
                        [.. known.Where(k => k.Has).Select(k => k.Number!.Value)],
                        [.. known.Where(k => !k.Has).Select(k => k.Number!.Value)]
                    )
                );
        }

        return new(attribute, value, holders.Count, (double)holders.Count / rivals.Count, differences);
    }

    // Ratios are compared as logarithms; sales and views can be 0, so that 1 is added.
    private static double? NumberOf(RivalListing rival, RivalFigure figure) =>
        figure switch
        {
            RivalFigure.Price => rival.Price is > 0 and var price ? Math.Log(price) : null,
            RivalFigure.Sales => rival.Sales is >= 0 and var sales ? Math.Log(1 + sales) : null,
            RivalFigure.Views => rival.Views is >= 0 and var views ? Math.Log(1 + views) : null,
            _ => rival.Occupancy,
        };

    private static FigureDifference Difference(RivalFigure figure, string value, double[] with, double[] without)
    {
        if (with.Length < Least || without.Length < Least)
            return new(figure, with.Length, without.Length, null, null, null, RivalTexts.TooFew(value, with.Length, without.Length));
        var (difference, half) = Welch(with, without);
        double Shown(double number) => figure == RivalFigure.Occupancy ? number : Math.Exp(number);
        var (estimate, low, high) = (Shown(difference), Shown(difference - half), Shown(difference + half));
        return new(
            figure,
            with.Length,
            without.Length,
            estimate,
            low,
            high,
            RivalTexts.Difference(figure, value, estimate, low, high, with.Length, without.Length)
        );
    }

    // The difference of two means, and half of its interval: variances differ, and the degrees of freedom are Welch and Satterthwaite's.
    private static (double Difference, double Half) Welch(double[] one, double[] other)
    {
        var (first, second) = (Variance(one) / one.Length, Variance(other) / other.Length);
        var difference = one.Average() - other.Average();
        if (first + second == 0)
            return (difference, 0);
        var freedom = (first + second) * (first + second) / (first * first / (one.Length - 1) + second * second / (other.Length - 1));
        return (difference, StudentT.InvCDF(0, 1, freedom, 0.5 + Confidence / 2) * Math.Sqrt(first + second));
    }

    private static double Variance(double[] numbers)
    {
        var mean = numbers.Average();
        return numbers.Sum(n => (n - mean) * (n - mean)) / (numbers.Length - 1);
    }
}
