using TinRabbit.Core.Platforms;
using TinRabbit.Core.Words;

namespace TinRabbit.Core.Edits;

/// <summary>Makes a text that is too long for a field fit it.</summary>
public static class Fitting
{
    /// <summary>A value that fits the field: phrases that no longer fit are dropped from the end, what is still too long is cut after a word.</summary>
    /// <returns>The value itself where it fits already.</returns>
    public static FieldValue Fit(Field field, FieldValue value)
    {
        if (field.Limit is not { } limit || RoomUsed.Of(field, value).Fits)
            return value;
        return value switch
        {
            FieldValue.Text text when limit.Max is { } max => new FieldValue.Text(Shorten(text.Value, field.Separator, limit, max)),
            FieldValue.Items items => new FieldValue.Items([
                .. items
                    .Values.Select(t => limit.Max is { } max ? Shorten(t, "", limit, max) : t)
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

    private static string Shorten(string text, string separator, Limit limit, int max)
    {
        var sign = separator.Trim();
        while (
            sign.Length > 0 && TextLength.Of(text, limit.Unit) > max && text.LastIndexOf(sign, StringComparison.Ordinal) is > 0 and var last
        )
            text = text[..last].TrimEnd();
        return TextLength.Of(text, limit.Unit) <= max ? text : text[..CutAt(text, limit, max)].TrimEnd(' ', ',', ';', '-');
    }
}
