namespace TinRabbit.Core.Reviews;

/// <summary>Cuts a text into sentences.</summary>
public static class Sentences
{
    private const string Ends = ".!?…。！？\n\r";

    /// <summary>The sentences with their closing marks, without spaces around them. A full stop between two digits ends none.</summary>
    public static IEnumerable<string> Of(string text)
    {
        var from = 0;
        for (var i = 0; i < text.Length; i++)
        {
            if (
                !Ends.Contains(text[i])
                || (text[i] == '.' && i > 0 && i + 1 < text.Length && char.IsDigit(text[i - 1]) && char.IsDigit(text[i + 1]))
            )
                continue;
            while (i + 1 < text.Length && Ends.Contains(text[i + 1]))
                i++;
            if (text[from..(i + 1)].Trim() is { Length: > 0 } sentence)
                yield return sentence;
            from = i + 1;
        }

        if (text[from..].Trim() is { Length: > 0 } last)
            yield return last;
    }
}
