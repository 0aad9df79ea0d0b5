namespace TinRabbit.Core.Words;

/// <summary>Ways in which two different words are the same to a platform's search. Case always folds.</summary>
[Flags]
public enum Folds
{
    /// <summary>Only case.</summary>
    None = 0,

    /// <summary>pajaros = pájaros.</summary>
    Diacritics = 1,

    /// <summary>womens = women's.</summary>
    Possessive = 2,

    /// <summary>box = boxes, leaf = leaves, child = children.</summary>
    Plural = 4,

    /// <summary>birdhouse = bird house = bird-house.</summary>
    Compound = 8,

    /// <summary>grey = gray, colour = color.</summary>
    Spelling = 16,
}
