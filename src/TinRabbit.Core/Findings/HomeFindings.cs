using TinRabbit.Core.Matching;
using TinRabbit.Core.Measures;

namespace TinRabbit.Core.Findings;

/// <summary>Picks whose home is a field that does not hold them.</summary>
internal static class HomeFindings
{
    private static readonly (Home Home, string[] Roles)[] Fields =
    [
        (Home.Title, ["title", "heading"]),
        (Home.Tags, ["tags"]),
        (Home.Bullets, ["bullets"]),
        (Home.Backend, ["backend"]),
        (Home.Description, ["body", "description"]),
    ];

    public static IEnumerable<Finding> Of(ListingToCheck draft, Weighing weighing)
    {
        foreach (var (home, roles) in Fields)
        {
            var fields = draft.Platform.Fields.Where(f => roles.Contains(f.Role)).ToList();
            if (fields.Count == 0)
                continue;
            string[] missing =
            [
                .. weighing
                    .Terms.Where(t => t.Term.Home == home && !IsHeld(t, home))
                    .OrderByDescending(t => t.Term.Demand())
                    .Select(t => t.Term.Text),
            ];
            if (missing.Length > 0)
                yield return new("home-missing", Level.Should, fields[0].Key, 0, 0, 0, FindingTexts.HomeMissing(missing, fields[0]))
                {
                    Subject = string.Join(',', missing.Take(3)),
                };

            bool IsHeld(WeighedTerm term, Home home) =>
                // Words in the backend need not be side by side: what counts is that the pick is found.
                home == Home.Backend
                    ? term.Grade != Grade.Missing
                    : fields.Exists(f => draft.Texts(f).Any(t => PageFindings.Holds(draft, t, term.Term.Text)));
        }
    }
}
