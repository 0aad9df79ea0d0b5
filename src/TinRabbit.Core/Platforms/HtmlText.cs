using System.Net;
using System.Text;

namespace TinRabbit.Core.Platforms;

/// <summary>
/// The text of HTML at its own offsets. AngleSharp reads HTML everywhere else, but does not tell where in the source a text is; that both
/// read the same text is held by a test.
/// </summary>
public static class HtmlText
{
    private const int LongestEntity = 11;

    /// <summary>Blanks the markup: the result has the length of the HTML, so that an offset in one is an offset in the other.</summary>
    public static string Blank(string html)
    {
        var text = new StringBuilder(html);
        // From where on an end is known to be missing, so that the rest is not looked through again for each beginning.
        var endless = html.Length;
        for (var i = 0; i < html.Length; i++)
        {
            if (html[i] == '<' && i + 1 < html.Length && (char.IsAsciiLetter(html[i + 1]) || html[i + 1] is '/' or '!' or '?'))
            {
                var end = EndOfTag(html, i, ref endless);
                for (; i <= end; i++)
                    text[i] = ' ';
                i--;
            }
            else if (html[i] == '&' && html.IndexOf(';', i, Math.Min(LongestEntity, html.Length - i)) is var semicolon and > 0)
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

    private static int EndOfTag(string html, int start, ref int endless)
    {
        if (string.CompareOrdinal(html, start, "<!--", 0, 4) == 0)
            return html.IndexOf("-->", start, StringComparison.Ordinal) is var close and >= 0 ? close + 2 : html.Length - 1;
        foreach (var silent in (string[])["script", "style"])
            if (start < endless && string.Compare(html, start + 1, silent, 0, silent.Length, StringComparison.OrdinalIgnoreCase) == 0)
            {
                if (html.IndexOf("</" + silent, start, StringComparison.OrdinalIgnoreCase) is var last and > 0)
                    start = last;
                else
                    endless = start;
            }

        return html.IndexOf('>', start) is var end and >= 0 ? end : html.Length - 1;
    }
}
