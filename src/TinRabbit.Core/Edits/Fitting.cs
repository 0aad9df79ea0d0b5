using TinRabbit.Core.Platforms;
using TinRabbit.Core.Words;

namespace TinRabbit.Core.Edits;

/// <summary>Makes a text that is too long for a field fit it.</summary>
public static class Fitting
{
    private const string PhraseEnds = ",;:–—|•(";

    // A text cut at a sentence or a phrase keeps at least this share of the room; otherwise it is cut at a word.
    private const double LeastShare = 0.5;

    /// <summary>A value that fits the field: phrases and sentences that no longer fit are dropped from the end.</summary>
    /// <returns>The value itself where it fits already.</returns>
    public static FieldValue Fit(Field field, FieldValue value)
    {
        if (field.Limit is not { } limit || RoomUsed.Of(field, value).Fits)
            return value;
        return value switch
        {
            FieldValue.Text text when limit.Max is { } max => new FieldValue.Text(Shorten(text.Value, field, max)),
            FieldValue.Items items => new FieldValue.Items([
                .. items
                    .Values.Select(t => limit.Max is { } max ? Shorten(t, field, max) : t)
                    .Where(t => t.Trim().Length > 0)
                    .DistinctBy(Tokens.Key)
                    .Take(limit.MaxItems ?? int.MaxValue),
            ]),
            _ => value,
        };
    }

    /// <summary>The end of the last word that fits; 0 where none does.</summary>
    public static int CutAt(string text, Limit limit, int max)
    {
        var (end, used) = (0, 0);
        foreach (var token in Tokens.Of(text))
        {
            used += TextLength.Of(text[end..token.End], limit.Unit);
            if (used > max)
                break;
            end = token.End;
        }

        return end;
    }

    /// <summary>
    /// A text that fits: up to the last sentence that does, else up to the last phrase, else up to the last word that can end one. A field
    /// of words is cut at a word.
    /// </summary>
    /// <param name="text">The text.</param>
    /// <param name="field">Its field, with a limit.</param>
    /// <param name="max">The room, in the unit of the field's limit.</param>
    public static string Shorten(string text, Field field, int max)
    {
        var limit = field.Limit!;
        if (TextLength.Of(text, limit.Unit) <= max)
            return text;
        var cut = CutAt(text, limit, max);
        // A sign that ends a sentence may fit behind the last word.
        var end = cut < text.Length && ".!?…".Contains(text[cut]) && TextLength.Of(text[..(cut + 1)], limit.Unit) <= max ? cut + 1 : cut;
        if (
            field.Shape is FieldShape.Text or FieldShape.Lines
            && LastEnd(text, end, ".!?…") is var sentence
            && sentence >= end * LeastShare
        )
            return text[..sentence].TrimEnd();
        var sign = field.Separator.Trim();
        if (
            field.Shape != FieldShape.Words
            && LastEnd(text, end, sign.Length == 1 ? PhraseEnds + sign : PhraseEnds) is var phrase
            && phrase > end * LeastShare
        )
            return Trimmed(text[..phrase]);
        return Trimmed(WithoutLooseEnd(text, cut));
    }

    // The end of the last part that is closed by one of some signs, or by the end of a line.
    private static int LastEnd(string text, int end, string signs)
    {
        for (var i = end - 1; i > 0; i--)
            if (text[i] == '\n' || (signs.Contains(text[i]) && (i + 1 == text.Length || !char.IsLetterOrDigit(text[i + 1]))))
                return i + 1;
            else if (i + 1 == end && end < text.Length && signs.Contains(text[end]))
                return end;
        return 0;
    }

    // No text ends with a word that leads to the next: "nest box for".
    private static string WithoutLooseEnd(string text, int cut)
    {
        var tokens = Tokens.Of(text[..cut]);
        while (tokens.Count > 1 && StopWords.Has(tokens[^1].Word))
            tokens.RemoveAt(tokens.Count - 1);
        return tokens.Count == 0 ? "" : text[..tokens[^1].End];
    }

    private static string Trimmed(string text) => text.TrimEnd(' ', ',', ';', ':', '-', '–', '—', '|', '•', '(');
}
