using System.Text;
using TinRabbit.Core.Platforms;
using TinRabbit.Core.Words;

namespace TinRabbit.Core.Edits;

/// <summary>One edit, to be made to many listings.</summary>
/// <param name="Kind">What it does.</param>
/// <param name="Find">The text that is replaced, or the tag; not empty.</param>
/// <param name="Replacement">What comes in its place; empty removes it.</param>
public sealed record ListingEdit(EditKind Kind, string Find, string Replacement = "")
{
    private const string TagsRole = "tags";

    /// <summary>Whether capitals must be the same.</summary>
    public bool MatchesCase { get; init; }

    /// <summary>Whether only whole words are found.</summary>
    public bool WholeWords { get; init; }

    /// <summary>The roles of the fields that are searched: title, tags and so on; empty for every field of text.</summary>
    public IReadOnlyList<string> Roles { get; init; } = [];

    /// <summary>The fields that the edit changes, with their new values; none where it changes nothing.</summary>
    public IReadOnlyDictionary<string, FieldValue> Apply(Platform platform, IReadOnlyDictionary<string, FieldValue> copy)
    {
        var changed = new Dictionary<string, FieldValue>();
        foreach (var field in platform.Fields)
            if (Applied(field, copy.GetValueOrDefault(field.Key)) is { } value)
                changed[field.Key] = value;
        return changed;
    }

    private FieldValue? Applied(Field field, FieldValue? value) =>
        Kind switch
        {
            EditKind.Replace => Replaced(field, value),
            // A platform's only list of phrases takes tags, whatever it calls them.
            _ when field.Role != TagsRole || field.Shape != FieldShape.Phrases => null,
            EditKind.AddTag => WithTag(Tags(field, value)),
            _ => WithoutTag(Tags(field, value)),
        };

    private static IReadOnlyList<string> Tags(Field field, FieldValue? value) =>
        value is null ? [] : [.. value.Units(field.Shape).Where(t => !string.IsNullOrWhiteSpace(t))];

    private FieldValue.Items? WithTag(IReadOnlyList<string> tags) =>
        tags.Any(t => Tokens.Key(t) == Tokens.Key(Find)) ? null : new([.. tags, Find.Trim()]);

    private FieldValue.Items? WithoutTag(IReadOnlyList<string> tags)
    {
        string[] left = [.. tags.Where(t => Tokens.Key(t) != Tokens.Key(Find))];
        return left.Length == tags.Count ? null : new(left);
    }

    private FieldValue? Replaced(Field field, FieldValue? value)
    {
        // Categories and attributes are chosen from the platform's own, and an address would break its links.
        if (
            field.Shape is FieldShape.Choices or FieldShape.Path
            || field.Role == "slug"
            || (Roles.Count > 0 && !Roles.Contains(field.Role.Length > 0 ? field.Role : field.Key))
        )
            return null;
        switch (value)
        {
            case FieldValue.Text text when Replaced(text.Value, field.Shape == FieldShape.Rich) is var after && after != text.Value:
                return new FieldValue.Text(after);
            case FieldValue.Items items:
                string[] all = [.. items.Values.Select(i => Replaced(i, isHtml: false))];
                return all.SequenceEqual(items.Values)
                    ? null
                    : new FieldValue.Items([.. all.Where((t, i) => t.Length > 0 || items.Values[i].Length == 0)]);
            default:
                return null;
        }
    }

    private string Replaced(string text, bool isHtml)
    {
        if (!isHtml)
            return ReplacedIn(text);
        // Markup stays as it is: only what is between tags is text.
        var (result, at) = (new StringBuilder(), 0);
        while (at < text.Length)
        {
            var open = text.IndexOf('<', at) is >= 0 and var found ? found : text.Length;
            result.Append(ReplacedIn(text[at..open]));
            var close = open < text.Length && text.IndexOf('>', open) is >= 0 and var end ? end + 1 : text.Length;
            result.Append(text, open, close - open);
            at = close;
        }

        return result.ToString();
    }

    private string ReplacedIn(string text) => Replacement.Length > 0 ? Exchanged(text) : Cut(text);

    private string Exchanged(string text)
    {
        StringBuilder? result = null;
        var copied = 0;
        for (var at = Next(text, 0); at >= 0; at = Next(text, copied))
        {
            result = (result ?? new()).Append(text, copied, at - copied).Append(Replacement);
            copied = at + Find.Length;
            if (result.Length > Bounds.TextLength)
                throw new InvalidInputException([
                    new(
                        "replacement",
                        $"A field would be longer than {Bounds.TextLength:#,0} characters, the limit. Use a shorter replacement."
                    ),
                ]);
        }

        return result is null ? text : result.Append(text, copied, text.Length - copied).ToString();
    }

    // What is cut takes its space or comma along, so that the search goes on a little further left.
    private string Cut(string text)
    {
        for (var at = Next(text, 0); at >= 0; at = Next(text, Math.Clamp(at - 1, 0, text.Length)))
            text = Core.Edits.Cut.Of(text, at, Find.Length);
        return text;
    }

    // Where it is found next; −1 where it is not.
    private int Next(string text, int from)
    {
        var how = MatchesCase ? StringComparison.Ordinal : StringComparison.OrdinalIgnoreCase;
        var at = text.IndexOf(Find, from, how);
        while (at >= 0 && WholeWords && !IsWhole(text, at))
            at = text.IndexOf(Find, at + 1, how);
        return at;
    }

    private bool IsWhole(string text, int at) =>
        (at == 0 || !char.IsLetterOrDigit(text[at - 1]) || !char.IsLetterOrDigit(Find[0]))
        && (at + Find.Length >= text.Length || !char.IsLetterOrDigit(text[at + Find.Length]) || !char.IsLetterOrDigit(Find[^1]));
}
