using AngleSharp.Html.Parser;
using FsCheck;
using FsCheck.Fluent;
using TinRabbit.Core.Platforms;

namespace TinRabbit.Core.Tests;

/// <summary>The text of HTML at its own offsets is the text that AngleSharp reads.</summary>
public class HtmlTextTests
{
    private static readonly string[] Pieces =
    [
        "cedar ",
        "bird house",
        "<p>",
        "</p>",
        "<b>",
        "</b>",
        "<br/>",
        "<img src=\"x\" alt=\"owl box\">",
        "<a href='page:3'>",
        "</a>",
        "&amp;",
        "&eacute;",
        "&#39;",
        " & ",
        "3 < 4 ",
        "<!-- nest box -->",
        "<script>if (a < b) bat();</script>",
        "<style>p > b { }</style>",
        "pájaros ",
    ];

    private static readonly Gen<string> Html = from some in Gen.Elements(Pieces).ListOf(14) select string.Concat(some);

    [Fact]
    public void It_has_the_length_of_the_HTML_and_the_characters_that_a_reader_sees() =>
        Check.QuickThrowOnFailure(
            Prop.ForAll(
                Html.ToArbitrary(),
                html =>
                {
                    var blanked = HtmlText.Blank(html);
                    var body = new HtmlParser().ParseDocument($"<body>{html}").Body!;
                    foreach (var silent in body.QuerySelectorAll("script, style"))
                        silent.Remove();
                    return blanked.Length == html.Length && Seen(blanked) == Seen(body.TextContent);
                }
            )
        );

    [Fact]
    public void An_offset_in_it_is_an_offset_in_the_HTML()
    {
        const string html = "<p class=\"cedar\">A <b>cedar</b> box</p>";
        Assert.Equal(html.IndexOf("cedar</b>", StringComparison.Ordinal), HtmlText.Blank(html).IndexOf("cedar", StringComparison.Ordinal));
    }

    private static string Seen(string text) => string.Concat(text.Where(c => !char.IsWhiteSpace(c) && c != '\u034F'));
}
