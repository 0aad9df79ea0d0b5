namespace TinRabbit.Core.Rivals;

/// <summary>The sentences on rivals. None of them claims a cause.</summary>
internal static class RivalTexts
{
    public static string TooFew(string value, int with, int without) =>
        $"Too few to say: {with} with “{value}”, {without} without; at least {FigureDifferences.Least} of each are needed.";

    public static string Difference(RivalFigure figure, string value, double estimate, double low, double high, int with, int without)
    {
        var counts = $"({with} with it, {without} without)";
        var none = FigureDifference.NoDifference(figure);
        if (low <= none && high >= none)
            return $"No clear difference in {Name(figure)} {counts}.";
        var size = figure == RivalFigure.Occupancy ? $"{Points(estimate)} points" : Percent(estimate);
        // From the smaller difference to the larger, whichever way it goes.
        var (near, far) = estimate > none ? (low, high) : (high, low);
        var range = figure == RivalFigure.Occupancy ? $"{Points(near)} and {Points(far)} points" : $"{Percent(near)} and {Percent(far)}";
        return $"{Capital(Name(figure))} {Is(figure)} {size} {(estimate > none ? "higher" : "lower")} with “{value}” {counts}; likely between {range}.";
    }

    private static string Name(RivalFigure figure) =>
        figure switch
        {
            RivalFigure.Price => "the price",
            RivalFigure.Sales => "sales",
            RivalFigure.Views => "views",
            RivalFigure.Ratings => "the number of ratings",
            _ => "occupancy",
        };

    private static string Is(RivalFigure figure) => figure is RivalFigure.Sales or RivalFigure.Views ? "are" : "is";

    private static string Percent(double ratio) => $"{Math.Round(Math.Abs(ratio - 1) * 100):0}%";

    private static string Points(double difference) => $"{Math.Round(Math.Abs(difference) * 100):0}";

    private static string Capital(string text) => Words.Capitals.First(text);
}
