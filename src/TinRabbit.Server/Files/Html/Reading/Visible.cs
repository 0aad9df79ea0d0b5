using AngleSharp.Dom;

namespace TinRabbit.Server.Files.Html.Reading;

/// <summary>What a reader sees of a page's elements.</summary>
internal static class Visible
{
    private static readonly HashSet<string> Inline = new(StringComparer.OrdinalIgnoreCase)
    {
        "a",
        "abbr",
        "b",
        "bdi",
        "bdo",
        "cite",
        "code",
        "data",
        "em",
        "font",
        "i",
        "ins",
        "label",
        "mark",
        "q",
        "s",
        "del",
        "strike",
        "small",
        "span",
        "strong",
        "sub",
        "sup",
        "time",
        "u",
        "var",
        "wbr",
        "button",
    };

    private static readonly HashSet<string> Format = new(StringComparer.OrdinalIgnoreCase)
    {
        "b",
        "bdi",
        "em",
        "i",
        "mark",
        "strong",
        "u",
        "wbr",
        "sub",
        "sup",
        "abbr",
    };

    private static readonly HashSet<string> Unseen = new(StringComparer.OrdinalIgnoreCase)
    {
        "script",
        "style",
        "template",
        "noscript",
        "head",
        "svg",
        "select",
        "option",
        "datalist",
        "iframe",
        "object",
    };

    /// <summary>Whether an element is not shown.</summary>
    public static bool IsHidden(IElement element) =>
        Unseen.Contains(element.LocalName)
        || element.HasAttribute("hidden")
        || (
            element.GetAttribute("style") is { } style
            && style.Replace(" ", "", StringComparison.Ordinal).Contains("display:none", StringComparison.OrdinalIgnoreCase)
        );

    /// <summary>Whether an element only sets its text in another way, so that its words belong to those around it.</summary>
    public static bool IsFormat(IElement element) => Format.Contains(element.LocalName);

    /// <summary>The text of an element in one line: blocks are apart, what is not shown is left out.</summary>
    public static string Text(INode node, Func<IElement, bool>? without = null)
    {
        var text = new StringBuilder();
        Add(node);
        return Line(text.ToString());

        void Add(INode at)
        {
            foreach (var child in at.ChildNodes)
                switch (child)
                {
                    case IText words:
                        text.Append(words.Data);
                        break;
                    case IElement element when !IsHidden(element) && without?.Invoke(element) != true:
                        var isBlock = !Inline.Contains(element.LocalName);
                        if (isBlock)
                            text.Append(' ');
                        Add(element);
                        if (isBlock)
                            text.Append(' ');
                        break;
                }
        }
    }

    /// <summary>The words that stand in an element itself, with those that are only set in another way.</summary>
    public static string Own(IElement element)
    {
        var text = new StringBuilder();
        foreach (var child in element.ChildNodes)
            if (child is IText words)
                text.Append(words.Data);
            else if (child is IElement part && IsFormat(part) && !IsHidden(part))
                text.Append(Text(part));
            else
                text.Append(' ');
        return Line(text.ToString());
    }

    /// <summary>A text without runs of white space.</summary>
    public static string Line(string? text) => string.Join(' ', (text ?? "").Split((char[]?)null, StringSplitOptions.RemoveEmptyEntries));

    /// <summary>The elements that are shown under some roots, each before those in it.</summary>
    /// <param name="roots">Where to begin.</param>
    /// <param name="without">Elements that are left out with all that is in them.</param>
    public static IEnumerable<IElement> Under(IEnumerable<IElement> roots, Func<IElement, bool>? without = null)
    {
        var stack = new Stack<IElement>(roots.Reverse());
        while (stack.TryPop(out var element))
        {
            if (IsHidden(element) || without?.Invoke(element) == true)
                continue;
            yield return element;
            foreach (var child in element.Children.Reverse())
                stack.Push(child);
        }
    }
}
