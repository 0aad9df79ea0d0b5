namespace TinRabbit.Core.Words;

/// <summary>Names of shops and brands in a text, small words aside: "Plover &amp; Pine" is "Plover and Pine".</summary>
public static class Names
{
    /// <summary>Where a name first stands in a text, in UTF-16 units; null where it does not.</summary>
    /// <param name="text">The text.</param>
    /// <param name="name">The name; null or empty stands nowhere.</param>
    public static (int Start, int End)? In(string text, string? name) => AllIn(text, name).Select(n => ((int, int)?)n).FirstOrDefault();

    /// <summary>Every place of a name in a text.</summary>
    public static IEnumerable<(int Start, int End)> AllIn(string text, string? name)
    {
        var wanted = Tokens.Of(name ?? "").Select(t => t.Word).Where(w => !StopWords.Has(w)).ToArray();
        if (wanted.Length == 0)
            yield break;
        var words = Tokens.Of(text).Where(t => !StopWords.Has(t.Word)).ToArray();
        for (var at = 0; at + wanted.Length <= words.Length; at++)
            if (words.Skip(at).Take(wanted.Length).Select(t => t.Word).SequenceEqual(wanted))
                yield return (words[at].Start, words[at + wanted.Length - 1].End);
    }
}
