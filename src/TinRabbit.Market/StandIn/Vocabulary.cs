using System.Globalization;

namespace TinRabbit.Market.StandIn;

/// <summary>The trade's words, read from the hand-written vocabulary.</summary>
/// <param name="Heads">What is sold.</param>
/// <param name="Modifiers">Words that narrow it.</param>
/// <param name="Shops">Names of rivals.</param>
/// <param name="Elsewhere">Heads that mean something else in some country: country, head, what it means there.</param>
internal sealed record Vocabulary(
    IReadOnlyList<Head> Heads,
    IReadOnlyList<Modifier> Modifiers,
    IReadOnlyList<string> Shops,
    IReadOnlyList<(string Country, string Head, string Meaning)> Elsewhere
)
{
    /// <summary>The countries in the order of a head's numbers.</summary>
    public static readonly string[] Countries = ["us", "gb", "au"];

    public static Vocabulary Read()
    {
        using var stream = typeof(Vocabulary).Assembly.GetManifestResourceStream("TinRabbit.Market.StandIn.vocabulary.txt")!;
        using var reader = new StreamReader(stream);
        var heads = new List<Head>();
        var modifiers = new List<Modifier>();
        var shops = new List<string>();
        var elsewhere = new List<(string, string, string)>();
        var section = "";
        while (reader.ReadLine() is { } line)
        {
            if (line.Length == 0 || line[0] == '#')
                continue;
            if (line[0] == '[')
            {
                section = line;
                continue;
            }

            var p = line.Split(" ; ");
            switch (section)
            {
                case "[heads]":
                    heads.Add(new(p[0], p[1].Split(' '), Number(p[2]), [.. p[3].Split(' ').Select(Number)], p[4]));
                    break;
                case "[words]":
                    modifiers.Add(new(p[0], p[1], p[2].Split(' '), Number(p[3]), p[4] == "before", p[5].Split(' '), p[6]));
                    break;
                case "[elsewhere]":
                    elsewhere.Add((p[0], p[1], p[2]));
                    break;
                default:
                    shops.Add(line);
                    break;
            }
        }

        return new(heads, modifiers, shops, elsewhere);

        static double Number(string text) => double.Parse(text, CultureInfo.InvariantCulture);
    }
}
