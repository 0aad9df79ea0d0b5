namespace TinRabbit.Core.Words;

/// <summary>Names of shops and brands in a text, small words aside: "Plover &amp; Pine" is "Plover and Pine".</summary>
public static class Names
{
    /// <summary>Every place of a name in a text, in UTF-16 units.</summary>
    /// <param name="text">The text.</param>
    /// <param name="name">The name; null or empty stands nowhere.</param>
    public static IReadOnlyList<(int Start, int End)> In(string text, string? name)
    {
        string[] wanted = [.. Tokens.Of(name ?? "").Select(t => t.Word).Where(w => !StopWords.Has(w))];
        if (wanted.Length == 0)
            return [];
        Token[] words = [.. Tokens.Of(text).Where(t => !StopWords.Has(t.Word))];
        return
        [
            .. Enumerable
                .Range(0, Math.Max(0, words.Length - wanted.Length + 1))
                .Where(at => words.Skip(at).Take(wanted.Length).Select(t => t.Word).SequenceEqual(wanted))
                .Select(at => (words[at].Start, words[at + wanted.Length - 1].End)),
        ];
    }

    /// <summary>Whether a claim is part of a name, and so claims nothing.</summary>
    /// <param name="names">The places of names in the claim's text.</param>
    /// <param name="claim">The claim.</param>
    public static bool Cover(IReadOnlyList<(int Start, int End)> names, Claim claim) =>
        names.Any(n => n.Start <= claim.Start && n.End >= claim.Start + claim.Length);
}
