using TinRabbit.Core.Words;

namespace TinRabbit.Core.Rivals;

/// <summary>Which values of attributes rivals fill, and how those that do differ from those that do not (docs/model.md, "Attributes of rivals").</summary>
public static class AttributeValues
{
    private static readonly RivalFigure[] Figures = [RivalFigure.Price, RivalFigure.Sales, RivalFigure.Views, RivalFigure.Occupancy];

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

    private static AttributeValue Compared(string attribute, string value, HashSet<int> holders, IReadOnlyList<RivalListing> rivals) =>
        new(
            attribute,
            value,
            holders.Count,
            (double)holders.Count / rivals.Count,
            FigureDifferences.Of($"{attribute}: {value}", holders, rivals, Figures)
        );
}
