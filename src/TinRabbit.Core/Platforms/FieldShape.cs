namespace TinRabbit.Core.Platforms;

/// <summary>How a field is written.</summary>
public enum FieldShape
{
    /// <summary>One line of text.</summary>
    Line,

    /// <summary>Text of many lines.</summary>
    Text,

    /// <summary>A list of lines: bullet points.</summary>
    Lines,

    /// <summary>A list of phrases: tags.</summary>
    Phrases,

    /// <summary>A bag of words: backend keywords.</summary>
    Words,

    /// <summary>HTML.</summary>
    Rich,

    /// <summary>A path in the category tree.</summary>
    Path,

    /// <summary>Named values: attributes.</summary>
    Choices,
}
