namespace TinRabbit.Core.Moves;

/// <summary>What a move does.</summary>
public enum MoveKind
{
    /// <summary>A pick goes to the front of the title; what no longer fits is dropped from the end.</summary>
    Front,

    /// <summary>The words of a pick, which stand in one field, are brought side by side.</summary>
    Whole,

    /// <summary>A phrase is added: to the title, as a tag, or as the closing line of a bullet point.</summary>
    Add,

    /// <summary>A phrase of the title, or a tag, is replaced by a pick.</summary>
    Exchange,

    /// <summary>The words that open a pick go into the backend.</summary>
    Words,

    /// <summary>An attribute gets a value that opens a pick.</summary>
    Attribute,

    /// <summary>A repeated word is cut.</summary>
    Free,
}
