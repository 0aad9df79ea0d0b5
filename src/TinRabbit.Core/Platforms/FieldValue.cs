using System.Net;
using System.Text;

namespace TinRabbit.Core.Platforms;

/// <summary>What stands in one field of a listing.</summary>
public abstract record FieldValue
{
    /// <summary>One text.</summary>
    public sealed record Text(string Value) : FieldValue;

    /// <summary>A list: tags, bullet points, a category path.</summary>
    public sealed record Items(IReadOnlyList<string> Values) : FieldValue;

    /// <summary>Attributes by name, each with its values.</summary>
    public sealed record Choices(IReadOnlyDictionary<string, IReadOnlyList<string>> Values) : FieldValue;

    /// <summary>
    /// The units that a search reads one by one: a text whole, each item of a list, each value of an attribute. A field of
    /// words is one unit however it was given. HTML keeps its length, with markup blanked, so that offsets stay right.
    /// </summary>
    public IReadOnlyList<string> Units(FieldShape shape)
    {
        IReadOnlyList<string> units = this switch
        {
            Text t => [t.Value],
            Items i when shape == FieldShape.Words => [string.Join(' ', i.Values)],
            Items i => i.Values,
            Choices c => [.. c.Values.Values.SelectMany(v => v)],
            _ => [],
        };
        return shape == FieldShape.Rich ? [.. units.Select(Blanked)] : units;
    }

    /// <summary>The value as one text, to be compared with another: a list has one item on each line.</summary>
    public string Lines(FieldShape shape) => this is Text text ? text.Value : string.Join('\n', Units(shape));

    /// <summary>Whether nothing but white space stands in the field.</summary>
    public bool IsEmpty(FieldShape shape) => Units(shape).All(string.IsNullOrWhiteSpace);

    private static string Blanked(string html)
    {
        var text = new StringBuilder(html);
        for (var i = 0; i < html.Length; i++)
        {
            if (html[i] == '<' && i + 1 < html.Length && (char.IsAsciiLetter(html[i + 1]) || html[i + 1] is '/' or '!' or '?'))
            {
                var end = EndOfTag(html, i);
                for (; i <= end; i++)
                    text[i] = ' ';
                i--;
            }
            else if (html[i] == '&' && html.IndexOf(';', i) is var semicolon and > 0 && semicolon - i <= 10)
            {
                // Puts the entity's character at its start and fills the rest with an invisible mark, so that offsets stay right.
                var one = WebUtility.HtmlDecode(html[i..(semicolon + 1)]);
                if (one.Length > 1)
                    continue;
                text[i] = one[0];
                for (var k = i + 1; k <= semicolon; k++)
                    text[k] = char.IsLetter(one[0]) ? '\u034F' : ' ';
                i = semicolon;
            }
        }

        return text.ToString();
    }

    private static int EndOfTag(string html, int start)
    {
        if (string.CompareOrdinal(html, start, "<!--", 0, 4) == 0)
            return html.IndexOf("-->", start, StringComparison.Ordinal) is var close and >= 0 ? close + 2 : html.Length - 1;
        foreach (var silent in (string[])["script", "style"])
            if (
                string.Compare(html, start + 1, silent, 0, silent.Length, StringComparison.OrdinalIgnoreCase) == 0
                && html.IndexOf("</" + silent, start, StringComparison.OrdinalIgnoreCase) is var last and > 0
            )
                start = last;
        return html.IndexOf('>', start) is var end and >= 0 ? end : html.Length - 1;
    }
}
