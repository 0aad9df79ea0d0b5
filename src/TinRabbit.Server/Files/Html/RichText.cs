using System.Text.RegularExpressions;
using AngleSharp.Html.Parser;
using Ganss.Xss;

namespace TinRabbit.Server.Files.Html;

/// <summary>The HTML of page bodies: only what the editor can write is kept of it.</summary>
public static partial class RichText
{
    private static readonly HtmlSanitizer Sanitizer = Make();

    /// <summary>
    /// Headings of level 2–4, paragraphs, bold, italic, lists, quotations, links and pictures; everything else is left out, its text kept.
    /// Scripts, styles, event attributes and addresses other than http, https, mailto, tel and pages of the shop are removed.
    /// </summary>
    /// <exception cref="InvalidInputException">It is beyond <see cref="HtmlBounds"/>.</exception>
    public static string Sanitize(string html, string path = "body")
    {
        Check(html, path);
        return Sanitizer.Sanitize(html);
    }

    /// <summary>Refuses HTML that would take too long to read.</summary>
    /// <exception cref="InvalidInputException">It is beyond <see cref="HtmlBounds"/>.</exception>
    public static void Check(string html, string path)
    {
        if (HtmlBounds.Problem(html) is { } why)
            throw new InvalidInputException([new(path, why)]);
    }

    /// <summary>A listing's fields with the HTML of each page body sanitized.</summary>
    /// <param name="fields">The fields, in their open format; they are changed.</param>
    /// <param name="platform">The platform whose fields they are.</param>
    public static JsonObject SanitizeFields(JsonObject fields, Platform platform)
    {
        foreach (var field in platform.Fields.Where(f => f.Shape == FieldShape.Rich))
            if (fields[field.Key] is JsonValue html)
                fields[field.Key] = Sanitize(html.GetValue<string>(), $"fields.{field.Key}");
        return fields;
    }

    /// <summary>The HTML with other numbers in its links to pages of the shop.</summary>
    public static string WithPageNumbers(string html, Func<int, int> numberOf) =>
        PageLink().Replace(html, m => $"\"{RichLink.PagePrefix}{numberOf(int.Parse(m.Groups[1].Value, CultureInfo.InvariantCulture))}\"");

    /// <summary>The HTML with the words of some links in the place of the links.</summary>
    public static string WithoutLinks(string html, Func<string, bool> isGone)
    {
        // Stored by a program that knew no bounds: it stays as it is.
        if (HtmlBounds.Problem(html) is not null)
            return html;
        var document = new HtmlParser().ParseDocument(html);
        foreach (var link in document.QuerySelectorAll("a[href]"))
            if (isGone(link.GetAttribute("href") ?? ""))
                link.OuterHtml = link.InnerHtml;
        return document.Body?.InnerHtml ?? "";
    }

    [GeneratedRegex("\"page:(\\d{1,9})\"")]
    private static partial Regex PageLink();

    private static HtmlSanitizer Make()
    {
        var sanitizer = new HtmlSanitizer { KeepChildNodes = true };
        // What is no text goes with its element.
        sanitizer.RemovingTag += (_, removed) =>
        {
            if (removed.Tag.LocalName is "script" or "style" or "template" or "noscript" or "iframe" or "object" or "svg" or "math")
                removed.Tag.InnerHtml = "";
        };
        sanitizer.AllowedTags.Clear();
        foreach (
            var tag in (string[])["h1", "h2", "h3", "h4", "p", "br", "strong", "b", "em", "i", "ul", "ol", "li", "blockquote", "a", "img"]
        )
            sanitizer.AllowedTags.Add(tag);
        sanitizer.AllowedAttributes.Clear();
        foreach (var attribute in (string[])["href", "src", "alt", "title"])
            sanitizer.AllowedAttributes.Add(attribute);
        sanitizer.AllowedSchemes.Clear();
        foreach (var scheme in (string[])["http", "https", "mailto", "tel", RichLink.PagePrefix.TrimEnd(':')])
            sanitizer.AllowedSchemes.Add(scheme);
        sanitizer.AllowedCssProperties.Clear();
        sanitizer.AllowDataAttributes = false;
        return sanitizer;
    }
}
