using System.Text;
using TinRabbit.Core.Findings;
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

    private string ReplacedIn(string text)
    {
        var how = MatchesCase ? StringComparison.Ordinal : StringComparison.OrdinalIgnoreCase;
        for (var at = text.IndexOf(Find, how); at >= 0; at = at < text.Length ? text.IndexOf(Find, at, how) : -1)
        {
            if (WholeWords && !IsWhole(text, at))
            {
                at++;
                continue;
            }

            if (Replacement.Length > 0)
                (text, at) = (string.Concat(text.AsSpan(0, at), Replacement, text.AsSpan(at + Find.Length)), at + Replacement.Length);
            else
                // What is cut takes its space or comma along, so that the search goes on a little further left.
                (text, at) = (GuardFindings.Tidy(text, at, Find.Length), Math.Max(0, Math.Min(at - 1, text.Length)));
            if (at > text.Length)
                break;
        }

        return text;
    }

    private bool IsWhole(string text, int at) =>
        (at == 0 || !char.IsLetterOrDigit(text[at - 1]) || !char.IsLetterOrDigit(Find[0]))
        && (at + Find.Length >= text.Length || !char.IsLetterOrDigit(text[at + Find.Length]) || !char.IsLetterOrDigit(Find[^1]));
}
