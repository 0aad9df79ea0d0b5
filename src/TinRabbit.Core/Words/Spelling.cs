namespace TinRabbit.Core.Words;

/// <summary>Regional spellings: grey = gray, colour = color. The table is data (Data/spelling.txt).</summary>
public static class Spelling
{
    private static readonly Dictionary<string, string> American = Read();

    /// <summary>The American form of a normalised word, or the word itself.</summary>
    public static string ToAmerican(string word) => American.GetValueOrDefault(word, word);

    /// <summary>Every pair of the table: British form, American form.</summary>
    public static IEnumerable<(string British, string American)> Pairs => American.Select(p => (p.Key, p.Value));

    private static Dictionary<string, string> Read()
    {
        var pairs = new Dictionary<string, string>(StringComparer.Ordinal);
        foreach (var line in WordData.Lines("spelling.txt"))
        {
            var parts = line.Split(' ', StringSplitOptions.RemoveEmptyEntries);
            if (parts[0] == "ise")
            {
                foreach (var root in parts.Skip(1))
                foreach (var ending in (string[])["e", "es", "ed", "er", "ers", "ing", "able", "ation", "ations"])
                    Add($"{root}is{ending}", $"{root}iz{ending}");
                continue;
            }

            foreach (var ending in parts.Skip(2).Select(e => e == "-" ? "" : e))
                Add(parts[0] + ending, parts[1] + ending);
        }

        return pairs;

        void Add(string british, string american)
        {
            pairs[british] = american;
            pairs.TryAdd(british + "'s", american + "'s");
        }
    }
}
