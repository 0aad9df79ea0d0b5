using System.Text.RegularExpressions;
using TinRabbit.Core.Platforms;
using TinRabbit.Core.Words;

namespace TinRabbit.Core.Pages;

/// <summary>A pattern for alt texts, such as <c>{what it shows}, {colour} {lead}</c>.</summary>
public static partial class AltPattern
{
    /// <summary>The names that a pattern can have in braces.</summary>
    public static readonly IReadOnlyList<string> Names =
    [
        "what it shows",
        "lead",
        "name",
        "what",
        "material",
        "colour",
        "size",
        "audience",
        "occasion",
        "brand",
    ];

    /// <summary>The text that a pattern makes. A name without a value is left out, with the punctuation that it leaves alone.</summary>
    /// <param name="pattern">The pattern.</param>
    /// <param name="values">The value of each name; those that have none are left out.</param>
    /// <exception cref="InvalidInputException">The pattern has a name that there is not.</exception>
    public static string Fill(string pattern, IReadOnlyDictionary<string, string> values)
    {
        var unknown = Name().Matches(pattern).Select(m => m.Groups[1].Value.Trim()).Where(n => !Names.Contains(n)).Distinct().ToList();
        if (unknown.Count > 0)
            throw new InvalidInputException([
                new(
                    "pattern",
                    $"“{{{unknown[0]}}}” is no name for a pattern; there are {string.Join(", ", Names.Select(n => $"{{{n}}}"))}."
                ),
            ]);
        var text = Name().Replace(pattern, m => values.GetValueOrDefault(m.Groups[1].Value.Trim(), "").Trim());
        text = Spaces().Replace(text, " ");
        text = Alone().Replace(text, "$1");
        return Capitals.First(text.Trim().Trim(',', ';', ':', '-', '–').Trim());
    }

    [GeneratedRegex(@"\{([^{}]*)\}")]
    private static partial Regex Name();

    [GeneratedRegex(@"\s+")]
    private static partial Regex Spaces();

    // A comma before another, and a space before a comma.
    [GeneratedRegex(@"(?:\s*[,;:](?=\s*[,;:.]))|\s+(?=[,;:.])()")]
    private static partial Regex Alone();
}
