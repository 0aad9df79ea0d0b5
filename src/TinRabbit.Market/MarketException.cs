namespace TinRabbit.Market;

/// <summary>A market that cannot be reached, is too slow, refuses, or answers something wrong.</summary>
/// <param name="message">What happened, in words for the seller.</param>
/// <param name="isSlow">Whether it did not answer in time.</param>
/// <param name="inner">The cause.</param>
public sealed class MarketException(string message, bool isSlow = false, Exception? inner = null) : Exception(message, inner)
{
    /// <summary>Whether it did not answer in time.</summary>
    public bool IsSlow { get; } = isSlow;

    /// <summary>Whether the source does not offer this at all, so that asking again is of no use.</summary>
    public bool IsNotOffered { get; init; }
}
