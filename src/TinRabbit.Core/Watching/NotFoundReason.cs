namespace TinRabbit.Core.Watching;

/// <summary>Why a search did not find a listing.</summary>
public enum NotFoundReason
{
    /// <summary>The listing was never sent to this market.</summary>
    NotSent,

    /// <summary>It was sent, and the market's index did not know it yet.</summary>
    IndexDelay,

    /// <summary>A word of the term is in no searched field.</summary>
    WordMissing,

    /// <summary>Every word is there: the market's rules may differ from the profile.</summary>
    RulesDiffer,
}
