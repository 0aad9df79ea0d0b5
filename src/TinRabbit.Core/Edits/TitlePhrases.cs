using TinRabbit.Core.Words;

namespace TinRabbit.Core.Edits;

/// <summary>A title as the phrases between its separators; the separators stay as the seller wrote them.</summary>
internal sealed class TitlePhrases
{
    private const string Marks = ",;|•–—";

    private readonly List<(string Text, string Before)> _phrases = [];
    private readonly string _separator;

    private TitlePhrases(string separator) => _separator = separator;

    /// <summary>The phrases, from the front.</summary>
    public IReadOnlyList<string> Texts => [.. _phrases.Select(p => p.Text)];

    /// <summary>Splits a title; phrases without a word are left out.</summary>
    /// <param name="title">The title.</param>
    /// <param name="separator">What the platform puts between phrases.</param>
    public static TitlePhrases Of(string title, string separator)
    {
        var phrases = new TitlePhrases(separator.Trim().Length > 0 ? separator : ", ");
        var (from, before) = (0, "");
        for (var i = 0; i <= title.Length; i++)
        {
            if (i < title.Length && !Marks.Contains(title[i]) && !IsDash(title, i))
                continue;
            if (i < title.Length && title[i] == ',' && IsInNumber(title, i))
                continue;
            var text = title[from..i].Trim();
            if (Tokens.Of(text).Count > 0)
                phrases._phrases.Add((text, phrases._phrases.Count == 0 ? "" : before));
            if (i == title.Length)
                break;
            var (start, end) = (i, i + 1);
            while (start > 0 && title[start - 1] == ' ')
                start--;
            while (end < title.Length && title[end] == ' ')
                end++;
            (before, from, i) = (title[start..end], end, end - 1);
        }

        return phrases;
    }

    /// <summary>
    /// The title with some of its phrases, in an order; −1 stands for a new phrase. The capital that began the title is taken from a phrase
    /// that comes to stand inside, where the other phrases begin without one.
    /// </summary>
    public string With(IEnumerable<int> order, string phrase = "")
    {
        var text = new System.Text.StringBuilder();
        foreach (var i in order)
        {
            if (text.Length > 0)
                text.Append(i >= 0 && _phrases[i].Before.Length > 0 ? _phrases[i].Before : _separator);
            text.Append(
                i < 0 ? phrase
                : i == 0 && text.Length > 0 && InnerAreLower ? Lowered(_phrases[0].Text)
                : _phrases[i].Text
            );
        }

        return text.ToString();
    }

    /// <summary>A phrase without the capital that it began with; a word with more capitals than that keeps them.</summary>
    public static string Lowered(string phrase)
    {
        var first = Tokens.Of(phrase)[0];
        var word = phrase.Substring(first.Start, first.Length);
        return word.Skip(1).Any(char.IsUpper)
            ? phrase
            : phrase[..first.Start] + char.ToLowerInvariant(word[0]) + phrase[(first.Start + 1)..];
    }

    private bool InnerAreLower => _phrases.Count > 1 && _phrases.Skip(1).All(p => !char.IsUpper(p.Text.FirstOrDefault(char.IsLetter)));

    /// <summary>The title with one of its phrases written another way.</summary>
    public string Replace(int number, string phrase)
    {
        var text = new System.Text.StringBuilder();
        for (var i = 0; i < _phrases.Count; i++)
            text.Append(_phrases[i].Before).Append(i == number ? phrase : _phrases[i].Text);
        return text.ToString();
    }

    private static bool IsDash(string title, int at) =>
        title[at] == '-' && at > 0 && title[at - 1] == ' ' && at + 1 < title.Length && title[at + 1] == ' ';

    private static bool IsInNumber(string title, int at) =>
        at > 0 && char.IsDigit(title[at - 1]) && at + 1 < title.Length && char.IsDigit(title[at + 1]);
}
