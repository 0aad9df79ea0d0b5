namespace TinRabbit.Core.Words;

/// <summary>How a word is related to another.</summary>
public enum Relation
{
    /// <summary>It means the same.</summary>
    Same,

    /// <summary>Of an adjective: it means something near.</summary>
    Similar,

    /// <summary>It means something broader.</summary>
    Broader,

    /// <summary>It means something narrower.</summary>
    Narrower,

    /// <summary>It is another kind of the same broader thing.</summary>
    Beside,
}
