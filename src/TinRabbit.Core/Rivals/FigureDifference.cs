namespace TinRabbit.Core.Rivals;

/// <summary>How a figure differs between rivals that have a value and those that lack it. It tells no cause.</summary>
/// <param name="Figure">The figure.</param>
/// <param name="With">How many rivals with the value show the figure.</param>
/// <param name="Without">How many without it do.</param>
/// <param name="Estimate">The ratio of geometric means; for occupancy the difference of means. Null where there are too few to say.</param>
/// <param name="Low">The lower end of Welch's 95 % interval; null with too few.</param>
/// <param name="High">Its upper end; null with too few.</param>
/// <param name="Sentence">The same in words.</param>
public sealed record FigureDifference(
    RivalFigure Figure,
    int With,
    int Without,
    double? Estimate,
    double? Low,
    double? High,
    string Sentence
)
{
    /// <summary>Whether the interval leaves out "no difference".</summary>
    public bool IsClear => Low > NoDifference(Figure) || High < NoDifference(Figure);

    /// <summary>The estimate of a figure that does not differ.</summary>
    internal static double NoDifference(RivalFigure figure) => figure == RivalFigure.Occupancy ? 0 : 1;
}
