using AngleSharp.Dom;
using AngleSharp.Html.Dom;
using AngleSharp.Html.Parser;
using TinRabbit.Core.Platforms;

namespace TinRabbit.Core.Pages;

/// <summary>A page's body as a reader sees it: its blocks in order, its links, its pictures.</summary>
/// <param name="Blocks">Headings, paragraphs and items with text, in order.</param>
/// <param name="Links">In order.</param>
/// <param name="Pictures">In order.</param>
public sealed record RichBody(IReadOnlyList<RichBlock> Blocks, IReadOnlyList<RichLink> Links, IReadOnlyList<RichPicture> Pictures)
{
    private static readonly HashSet<string> Silent = ["SCRIPT", "STYLE", "TEMPLATE", "NOSCRIPT"];
    private static readonly HashSet<string> BlockNames =
    [
        "P",
        "DIV",
        "LI",
        "UL",
        "OL",
        "H1",
        "H2",
        "H3",
        "H4",
        "H5",
        "H6",
        "BLOCKQUOTE",
        "PRE",
        "TABLE",
        "TR",
        "TD",
        "TH",
        "SECTION",
        "ARTICLE",
        "HEADER",
        "FOOTER",
        "MAIN",
        "ASIDE",
        "FIGURE",
        "FIGCAPTION",
        "DL",
        "DT",
        "DD",
        "HR",
        "BR",
    ];

    /// <summary>The text of all blocks, a line each.</summary>
    public string Text => string.Join('\n', Blocks.Select(b => b.Text));

    /// <summary>The first block that is no heading; null where there is none.</summary>
    public string? FirstParagraph => Blocks.FirstOrDefault(b => b.Level == 0)?.Text;

    /// <summary>Reads HTML. It never fails: what is malformed is read as a browser would, and what is beyond <see cref="HtmlBounds"/> as text alone.</summary>
    public static RichBody Read(string html)
    {
        if (HtmlBounds.Problem(html) is not null)
            return new(
                [new(0, string.Join(' ', HtmlText.Blank(html).Split((char[]?)null, StringSplitOptions.RemoveEmptyEntries)))],
                [],
                []
            );
        var body = new HtmlParser().ParseDocument(html).Body;
        if (body is null)
            return new([], [], []);
        var blocks = new List<RichBlock>();
        var text = new System.Text.StringBuilder();
        var level = 0;
        Walk(body);
        End();
        return new(
            blocks,
            [
                .. body.QuerySelectorAll<IHtmlAnchorElement>("a[href]")
                    .Select(a => new RichLink(a.GetAttribute("href") ?? "", a.TextContent.Trim())),
            ],
            [
                .. body.QuerySelectorAll<IHtmlImageElement>("img")
                    .Select(i => new RichPicture(i.GetAttribute("src") ?? "", (i.GetAttribute("alt") ?? "").Trim())),
            ]
        );

        void Walk(INode node)
        {
            foreach (var child in node.ChildNodes)
                if (child is IText words)
                    text.Append(words.Data);
                else if (child is IElement element && !Silent.Contains(element.TagName))
                {
                    var isBlock = BlockNames.Contains(element.TagName);
                    var outer = level;
                    if (isBlock)
                    {
                        End();
                        level = element.TagName is ['H', >= '1' and <= '6'] ? element.TagName[1] - '0' : outer;
                    }

                    Walk(element);
                    if (!isBlock)
                        continue;
                    End();
                    level = outer;
                }
        }

        void End()
        {
            var line = string.Join(' ', text.ToString().Split((char[]?)null, StringSplitOptions.RemoveEmptyEntries));
            if (line.Length > 0)
                blocks.Add(new(level, line));
            text.Clear();
        }
    }
}
