using MathNet.Numerics.Distributions;

namespace TinRabbit.Core.Rivals;

/// <summary>How rivals that have something differ from those that lack it: geometric means by their ratio, shares by their difference, each with Welch's interval (docs/model.md, "Attributes of rivals").</summary>
public static class FigureDifferences
{
    /// <summary>The fewest rivals that have it, and that lack it, which are compared.</summary>
    public const int Least = 8;

    private const double Confidence = 0.95;

    /// <summary>The difference of each figure; those that no rival shows are left out.</summary>
    /// <param name="what">What some of them have, as the sentences name it.</param>
    /// <param name="holders">The numbers of the rivals that have it.</param>
    /// <param name="rivals">All rivals.</param>
    /// <param name="figures">The figures to compare.</param>
    public static IReadOnlyList<FigureDifference> Of(
        string what,
        IReadOnlySet<int> holders,
        IReadOnlyList<RivalListing> rivals,
        IReadOnlyList<RivalFigure> figures
    )
    {
        var differences = new List<FigureDifference>();
        foreach (var figure in figures)
        {
            var known = rivals
                .Select((r, i) => (Has: holders.Contains(i), Number: NumberOf(r, figure)))
                .Where(r => r.Number is not null)
                .ToList();
            if (known.Count > 0)
                differences.Add(
                    Difference(
                        figure,
                        what,
                        [.. known.Where(k => k.Has).Select(k => k.Number!.Value)],
                        [.. known.Where(k => !k.Has).Select(k => k.Number!.Value)]
                    )
                );
        }

        return differences;
    }

    // Ratios are compared as logarithms; counts can be 0, so that 1 is added.
    private static double? NumberOf(RivalListing rival, RivalFigure figure) =>
        figure switch
        {
            RivalFigure.Price => rival.Price is > 0 and var price ? Math.Log(price) : null,
            RivalFigure.Sales => LogOf(rival.Sales),
            RivalFigure.Views => LogOf(rival.Views),
            RivalFigure.Ratings => LogOf(rival.Ratings),
            _ => rival.Occupancy,
        };

    private static double? LogOf(double? count) => count is >= 0 and var number ? Math.Log(1 + number) : null;

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
