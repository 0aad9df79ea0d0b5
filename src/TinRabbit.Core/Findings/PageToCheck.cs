using TinRabbit.Core.Pages;

namespace TinRabbit.Core.Findings;

/// <summary>What a check knows of a page beside its copy.</summary>
/// <param name="Kind">What it is for.</param>
public sealed record PageToCheck(PageKind Kind)
{
    /// <summary>What the site adds to the page title by itself; empty where it adds nothing.</summary>
    public string TitleSuffix { get; init; } = "";

    /// <summary>The site's brand; empty where there is none.</summary>
    public string Brand { get; init; } = "";

    /// <summary>The host of the site's base address, such as <c>ploverandpine.example</c>; empty where it is not known.</summary>
    public string Host { get; init; } = "";

    /// <summary>Names of other pages with the same lead.</summary>
    public IReadOnlyList<string> SameLead { get; init; } = [];

    /// <summary>For a category: where the others of the same name are, by the name of the page that each is inside; empty at the top.</summary>
    public IReadOnlyList<string> SameName { get; init; } = [];

    /// <summary>The longer side of each picture's file in pixels; null where it has none.</summary>
    public IReadOnlyList<int?> PictureSides { get; init; } = [];

    /// <summary>The slugs of the other pages.</summary>
    public IReadOnlySet<string> TakenSlugs { get; init; } = new HashSet<string>();

    /// <summary>The name of the page that has its slug already; null where none has.</summary>
    public string? SlugTakenBy { get; init; }

    /// <summary>The pages that a link can lead to; null where they are not known.</summary>
    public IReadOnlySet<int>? Published { get; init; }

    /// <summary>The published page that it is inside, with its name; null at the top.</summary>
    public (int Id, string Name)? Parent { get; init; }

    private static readonly Dictionary<string, double[]> Shipped = Words
        .WordData.Lines("page-checks.txt", "Pages")
        .Select(l => l.Split(' '))
        .ToDictionary(
            l => l[0],
            l => l[1..].Select(v => double.Parse(v, System.Globalization.CultureInfo.InvariantCulture)).ToArray(),
            StringComparer.Ordinal
        );

    /// <summary>A threshold: the profile's for this kind, the profile's for all kinds, or the one that ships.</summary>
    public double Threshold(Platforms.Platform platform, string name) =>
        platform.Checks.TryGetValue($"{Kind.ToString().ToLowerInvariant()}.{name}", out var own) ? own
        : platform.Checks.TryGetValue(name, out var all) ? all
        : Shipped[name][(int)Kind];
}
