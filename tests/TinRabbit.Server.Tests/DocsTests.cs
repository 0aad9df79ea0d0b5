using System.Text.RegularExpressions;

namespace TinRabbit.Server.Tests;

/// <summary>What the documents say of the code is so.</summary>
public partial class DocsTests
{
    private static readonly string[] Sources =
    [
        .. new[] { "src", "tests", "bench" }
            .SelectMany(d => Directory.GetFiles(Path.Combine(Repository.Root, d), "*", SearchOption.AllDirectories))
            .Select(f => Path.GetRelativePath(Repository.Root, f).Replace('\\', '/'))
            .Where(f => !Built().IsMatch(f)),
    ];

    [Fact]
    public void Every_file_that_the_architecture_names_is_there()
    {
        var named = Files().Matches(Architecture()).Select(m => m.Groups[1].Value).Distinct().ToList();
        Assert.NotEmpty(named);
        Assert.Equal(
            [],
            named.Where(n =>
                !Sources.Any(s => s.EndsWith($"/{n}", StringComparison.Ordinal) || s.EndsWith(Long(n), StringComparison.Ordinal))
            )
        );
    }

    [Fact]
    public void Every_type_that_the_architecture_names_is_there()
    {
        var code = string.Join('\n', Sources.Where(s => Code().IsMatch(s)).Select(s => File.ReadAllText(Path.Combine(Repository.Root, s))));
        var names = Names().Matches(Architecture()).Select(m => m.Groups[1].Value).Distinct();
        Assert.Equal([], names.Where(n => !Regex.IsMatch(code, $@"\b{Regex.Escape(n.Split('.')[^1])}\b")));
    }

    private static string Architecture() => File.ReadAllText(Path.Combine(Repository.Root, "docs", "architecture.md"));

    // The map leaves out what the folders of all projects begin with.
    private static string Long(string name) => $"/TinRabbit.{name}";

    [GeneratedRegex(@"(^|/)(bin|obj|dist|node_modules|wwwroot/assets)/")]
    private static partial Regex Built();

    [GeneratedRegex(@"\.(cs|tsx?)$")]
    private static partial Regex Code();

    [GeneratedRegex(@"`([\w./-]+\.(?:cs|tsx?|txt|css))`")]
    private static partial Regex Files();

    [GeneratedRegex(@"`([A-Z]\w+(?:\.[A-Z]\w+)?)`")]
    private static partial Regex Names();
}
