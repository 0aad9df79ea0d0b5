using TinRabbit.Core.Platforms;

namespace TinRabbit.Core.Pages;

/// <summary>Old slugs, and the present slug that each leads to: never in a chain, never in a loop.</summary>
public static class Redirects
{
    /// <summary>Collapses chains, so that each old slug leads to its last one.</summary>
    /// <param name="given">From, to; as somebody wrote them.</param>
    /// <exception cref="InvalidInputException">Some lead in a circle, or one slug leads to two.</exception>
    public static IReadOnlyDictionary<string, string> Collapse(IReadOnlyList<(string From, string To)> given)
    {
        var (direct, problems) = (new Dictionary<string, string>(StringComparer.Ordinal), new List<Problem>());
        for (var i = 0; i < given.Count; i++)
            if (!direct.TryAdd(given[i].From, given[i].To) && direct[given[i].From] != given[i].To)
                problems.Add(new($"redirects[{i}]", $"“{given[i].From}” leads to “{direct[given[i].From]}” already."));
        var ends = new Dictionary<string, string>(StringComparer.Ordinal);
        foreach (var from in direct.Keys)
        {
            var (to, steps) = (direct[from], 0);
            while (direct.TryGetValue(to, out var next) && steps++ <= direct.Count)
                to = next;
            if (steps > direct.Count || to == from)
                problems.Add(new("redirects", $"“{from}” leads in a circle."));
            else
                ends[from] = to;
        }

        return problems.Count == 0 ? ends : throw new InvalidInputException(problems);
    }
}
