using TinRabbit.Core.Measures;
using TinRabbit.Core.Platforms;
using TinRabbit.Core.Words;

namespace TinRabbit.Core.Filling;

/// <summary>One short phrase that holds several terms.</summary>
/// <param name="Text">The shortest phrase in which each term is whole.</param>
/// <param name="Together">The shortest in which each has all its words, in any order; the same text where that is no shorter.</param>
/// <param name="Volume">Searches a month that it serves, unknown ones counted as 0.</param>
/// <param name="UnknownVolume">How many of the terms have no known volume.</param>
public sealed record Weave(string Text, string Together, double Volume, int UnknownVolume)
{
    /// <summary>Fewest terms to weave.</summary>
    public const int Least = 2;

    /// <summary>Most terms to weave.</summary>
    public const int Most = 6;

    /// <summary>
    /// Weaves terms into their shortest common superstring over words.
    /// </summary>
    /// <exception cref="InvalidInputException">There are fewer than two terms, more than six, or one has no word.</exception>
    public static Weave Of(IReadOnlyList<WantedTerm> terms)
    {
        if (terms.Count is < Least or > Most)
            throw new InvalidInputException([new("terms", $"Weave {Least} to {Most} terms; there are {terms.Count}.")]);
        var all = terms.Select(t => Tokens.Of(t.Text)).ToList();
        if (all.FindIndex(t => t.Count == 0) is >= 0 and var empty)
            throw new InvalidInputException([new($"terms[{empty}].text", $"\"{terms[empty].Text}\" has no word in it.")]);
        var words = all.Select(t => t.Select(w => w.Word).ToArray()).ToList();
        var whole = Superstring.Shortest(words);
        var together = new List<string>(whole.Length);
        foreach (var word in whole)
            if (!together.Exists(w => Superstring.IsSame(w, word)))
                together.Add(word);
        return new(string.Join(' ', whole), string.Join(' ', together), terms.Sum(t => t.Volume ?? 0), terms.Count(t => t.Volume is null));
    }
}
