using TinRabbit.Core.Platforms;

namespace TinRabbit.Core.Pages;

/// <summary>A page that an outline would create.</summary>
/// <param name="Line">The line of the outline, from 1.</param>
/// <param name="Name">Its name.</param>
/// <param name="Slug">Its slug.</param>
/// <param name="Level">How deep it would be inside the parent, from 0.</param>
public sealed record PlannedPage(int Line, string Name, string Slug, int Level)
{
    /// <summary>What an outline would create inside a page.</summary>
    /// <param name="lines">The outline.</param>
    /// <param name="siblings">The names of the pages that are there.</param>
    /// <param name="taken">The slugs that other pages of the site have; those of the plan are added.</param>
    /// <exception cref="InvalidInputException">There is no line, or a name is there already.</exception>
    public static IReadOnlyList<PlannedPage> Plan(
        IReadOnlyList<OutlineLine> lines,
        IReadOnlyCollection<string> siblings,
        ISet<string> taken
    )
    {
        if (lines.Count == 0)
            throw new InvalidInputException([new("text", "Paste a list of names, one on each line.")]);
        var problems = lines
            .Where(l => l.Inside < 0 && siblings.Contains(l.Name, StringComparer.OrdinalIgnoreCase))
            .Select(l => new Problem($"line {l.Number}", $"Line {l.Number}: there is a page “{l.Name}” here already."))
            .ToList();
        if (problems.Count > 0)
            throw new InvalidInputException(problems);
        var planned = new List<PlannedPage>(lines.Count);
        foreach (var line in lines)
        {
            var slug = Slugs.Of(line.Name, taken.Contains);
            taken.Add(slug);
            planned.Add(new(line.Number, line.Name, slug, line.Inside < 0 ? 0 : planned[line.Inside].Level + 1));
        }

        return planned;
    }
}
