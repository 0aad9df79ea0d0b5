using System.Globalization;
using System.Text;

namespace TinRabbit.Core.Words;

/// <summary>A text after normalisation, with the way back to the original.</summary>
internal readonly struct Normalised
{
    private readonly int[]? _starts;
    private readonly int[]? _ends;

    private Normalised(string text, int[]? starts, int[]? ends)
    {
        Text = text;
        _starts = starts;
        _ends = ends;
    }

    /// <summary>NFKC, the three curled apostrophes made plain, lower-case invariant.</summary>
    public string Text { get; }

    public int StartOf(int at) => _starts is null ? at : _starts[at];

    public int EndOf(int at) => _ends is null ? at + 1 : _ends[at];

    public static Normalised Of(string text)
    {
        if (Ascii.IsValid(text))
            return new(text.ToLowerInvariant(), null, null);
        text = WithoutLoneSurrogates(text);
        if (text.IsNormalized(NormalizationForm.FormKC))
            return new(Plain(text), null, null);

        // NFKC never composes across the edge of a grapheme cluster, so clusters can be normalised one at a time.
        var normal = new StringBuilder(text.Length + 8);
        var starts = new List<int>(text.Length + 8);
        var ends = new List<int>(text.Length + 8);
        for (var at = 0; at < text.Length; )
        {
            var length = StringInfo.GetNextTextElementLength(text.AsSpan(at));
            var cluster = text.Substring(at, length);
            var changed = cluster.Normalize(NormalizationForm.FormKC);
            for (var i = 0; i < changed.Length; i++)
            {
                var same = changed == cluster;
                starts.Add(same ? at + i : at);
                ends.Add(same ? at + i + 1 : at + length);
            }

            normal.Append(changed);
            at += length;
        }

        return new(Plain(normal.ToString()), [.. starts], [.. ends]);
    }

    private static string Plain(string text) => text.Replace('’', '\'').Replace('ʼ', '\'').Replace('‘', '\'').ToLowerInvariant();

    private static string WithoutLoneSurrogates(string text)
    {
        StringBuilder? mended = null;
        for (var i = 0; i < text.Length; i++)
        {
            if (!char.IsSurrogate(text[i]))
                continue;
            if (char.IsHighSurrogate(text[i]) && i + 1 < text.Length && char.IsLowSurrogate(text[i + 1]))
            {
                i++;
                continue;
            }

            (mended ??= new StringBuilder(text))[i] = '\uFFFD';
        }

        return mended?.ToString() ?? text;
    }
}
