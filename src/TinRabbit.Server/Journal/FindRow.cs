namespace TinRabbit.Server.Journal;

/// <summary>One term of a found check.</summary>
public sealed class FindRow
{
    public int CheckId { get; set; }

    /// <summary>The <see cref="FollowedTermRow"/>.</summary>
    public int TermId { get; set; }

    /// <summary>Whether the market was asked; until then nothing else is known.</summary>
    public bool IsDone { get; set; }
    public bool Found { get; set; }

    /// <summary>From 1; null where it was not found, or where the rank is not known.</summary>
    public int? Rank { get; set; }

    /// <summary>How many listings the search finds; null when unknown.</summary>
    public long? Results { get; set; }
}
