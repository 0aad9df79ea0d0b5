namespace TinRabbit.Core.Words;

/// <summary>What kind of text a word stands in: it decides what the word claims.</summary>
public enum TextKind
{
    /// <summary>A title, or a search term: every word of a facet claims something of the product.</summary>
    Title,

    /// <summary>Sentences: a word claims something only where it is about the product.</summary>
    Prose,
}
