using TinRabbit.Core.Words;

namespace TinRabbit.Core.Tests.Claims;

/// <summary>Claims in sentences of many trades, marked by hand in brackets: nearly all are found, and hardly any is made up.</summary>
public class ClaimCorpusTests(ITestOutputHelper output)
{
    private const double LeastFound = 0.9;
    private const double MostFalse = 1.0 / 40;

    private sealed record Score(string Trade, int Sentences, int Claims, int Found, int WithFalse);

    [Fact]
    public void Claims_are_found_in_any_trade_without_false_alarms()
    {
        var scores = typeof(ClaimCorpusTests)
            .Assembly.GetManifestResourceNames()
            .Where(n => n.Contains(".Claims.") && n.EndsWith(".txt", StringComparison.Ordinal))
            .Order(StringComparer.Ordinal)
            .Select(ScoreOf)
            .ToList();
        foreach (var s in scores)
            output.WriteLine(
                $"{s.Trade}: {s.Found} of {s.Claims} claims found; {s.WithFalse} of {s.Sentences} sentences with a false alarm"
            );
        Assert.True(scores.Count >= 8);
        Assert.All(scores, s => Assert.True(s.Found >= LeastFound * s.Claims, $"{s.Trade}: {s.Found} of {s.Claims}"));
        Assert.True(scores.Sum(s => s.WithFalse) <= MostFalse * scores.Sum(s => s.Sentences));
    }

    private static Score ScoreOf(string resource)
    {
        using var reader = new StreamReader(typeof(ClaimCorpusTests).Assembly.GetManifestResourceStream(resource)!);
        var facts = new FactWords(
            reader.ReadLine()!.Split(": ")[1],
            new Dictionary<Facet, IReadOnlyList<string>> { [Facet.Property] = ["nothing else is known"] }
        );
        var (sentences, claims, hit, wrong) = (0, 0, 0, 0);
        while (reader.ReadLine() is { } line)
        {
            var (text, marks) = Unmarked(line);
            var found = Facets.Unbacked(text, facts, TextKind.Prose);
            sentences++;
            claims += marks.Count;
            hit += marks.Count(m => found.Any(f => Overlap(f, m)));
            wrong += found.Any(f => !marks.Any(m => Overlap(f, m))) ? 1 : 0;
        }

        return new(resource.Split('.')[^2], sentences, claims, hit, wrong);

        static bool Overlap(Claim claim, (int Start, int End) mark) => claim.Start < mark.End && mark.Start < claim.Start + claim.Length;
    }

    // The sentence without its brackets, and where they stood.
    private static (string Text, List<(int Start, int End)> Marks) Unmarked(string line)
    {
        var (text, marks, start) = (new System.Text.StringBuilder(), new List<(int, int)>(), 0);
        foreach (var c in line)
            if (c == '[')
                start = text.Length;
            else if (c == ']')
                marks.Add((start, text.Length));
            else
                text.Append(c);
        return (text.ToString(), marks);
    }
}
