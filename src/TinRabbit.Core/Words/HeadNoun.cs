namespace TinRabbit.Core.Words;

/// <summary>The word that a phrase is about.</summary>
public static class HeadNoun
{
    /// <summary>
    /// The place of the last word before the first "for", "with" or "of" that belongs to no facet ("box" of "nest box cedar for wrens"); the
    /// last word there where all do.
    /// </summary>
    /// <param name="words">The phrase, at least one word.</param>
    public static int IndexIn(IReadOnlyList<string> words)
    {
        var last = StopWords.About(words);
        for (var i = last; i >= 0; i--)
            if (!StopWords.Has(words[i]) && !Facets.IsFacetWord(words[i]))
                return i;
        return last;
    }
}
