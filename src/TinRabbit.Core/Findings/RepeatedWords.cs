using TinRabbit.Core.Edits;
using TinRabbit.Core.Words;

namespace TinRabbit.Core.Findings;

/// <summary>Removes repeats of a word from a title where what remains still reads well.</summary>
internal static class RepeatedWords
{
    private const string PhraseEnds = ",;|/:()–—•";

    /// <summary>The title with only one of the occurrences of a word.</summary>
    /// <param name="title">The title.</param>
    /// <param name="tokens">Its tokens.</param>
    /// <param name="occurrences">The tokens that are the same word.</param>
    /// <param name="kept">Which of them stays, from 0.</param>
    /// <returns>Null where a removal would leave a broken phrase: a word may go where it begins a phrase and describes the next word, or with a phrase that consists of nothing else.</returns>
    public static string? KeepOne(string title, IReadOnlyList<Token> tokens, IReadOnlyList<Token> occurrences, int kept)
    {
        var text = title;
        for (var i = occurrences.Count - 1; i >= 0; i--)
        {
            if (i == kept)
                continue;
            if (!CanRemove(title, tokens, occurrences[i]))
                return null;
            text = Cut.Of(text, occurrences[i].Start, occurrences[i].Length);
        }

        return text.Length == 0 ? null : Capitals.First(text);
    }

    private static bool CanRemove(string title, IReadOnlyList<Token> tokens, Token token)
    {
        var (start, end) = (token.Start, token.End);
        while (start > 0 && !PhraseEnds.Contains(title[start - 1]))
            start--;
        while (end < title.Length && !PhraseEnds.Contains(title[end]))
            end++;
        var phrase = tokens.Where(t => t.Start >= start && t.End <= end).ToList();
        if (phrase.Count == 1)
            return true;
        var joined = token.End < title.Length && title[token.End] == '-';
        return !joined && phrase[0].Start == token.Start && !StopWords.Has(phrase[1].Word);
    }
}
