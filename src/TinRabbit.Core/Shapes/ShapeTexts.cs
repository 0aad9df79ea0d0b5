namespace TinRabbit.Core.Shapes;

/// <summary>What is said of the shape of a year.</summary>
internal static class ShapeTexts
{
    /// <summary>How certain it is, and what would settle it.</summary>
    public static string Certainty(Shape shape, int months, double p) =>
        shape switch
        {
            Shape.Seasonal when months < 36 => $"Fairly certain: the season shows twice in {months} months. A third year would confirm it.",
            Shape.Seasonal => $"Certain: {months / 12} years have the same season.",
            Shape.OneOff when months < 24 =>
                $"Uncertain: a season would look the same in {months} months. The same month next year would tell.",
            Shape.OneOff => "Quite certain: the same months of other years show no peak.",
            Shape.Sparse => "Too few searches to say more. A broader term has more data.",
            _ when months < 24 => $"Uncertain: {months} months are too few to see a season. {24 - months} more are needed.",
            Shape.Rising or Shape.Fading =>
                $"The odds of such a trend by chance are {(p < 0.001 ? "less than 1 in 1,000" : $"about 1 in {1 / p:F0}")}.",
            _ => $"Fairly certain, based on {months} months.",
        };
}
