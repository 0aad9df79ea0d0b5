using TinRabbit.Core.Rivals;

namespace TinRabbit.Core.Progress;

/// <summary>How far a listing has come, as far as it decides what to do next.</summary>
public sealed record ListingState
{
    /// <summary>Picks that count.</summary>
    public int Picks { get; init; }

    /// <summary>Picks that no fill and no move uses, because they say more than the facts.</summary>
    public int WaitingForFacts { get; init; }

    /// <summary>The pick that is worth most; null without picks.</summary>
    public string? Strongest { get; init; }

    /// <summary>How many of the words that the titles of the first listings use most are in the picks; none where the first listings are not known.</summary>
    public UsualWords Usual { get; init; }

    /// <summary>Whether a lead is chosen.</summary>
    public bool HasLead { get; init; }

    /// <summary>Required findings.</summary>
    public int Required { get; init; }

    /// <summary>What the best single edit gains in grip; 0 where none gains anything.</summary>
    public double BestGain { get; init; }

    /// <summary>Tags that are empty.</summary>
    public int EmptyTags { get; init; }

    /// <summary>When the listing was published last; null before.</summary>
    public DateTime? PublishedAt { get; init; }

    /// <summary>Whether it has changed since.</summary>
    public bool HasChanged { get; init; }

    /// <summary>From when the market's search shows what was published last; null before it was published.</summary>
    public DateTime? ShownAt { get; init; }

    /// <summary>The market's time.</summary>
    public DateTime Now { get; init; }

    /// <summary>When it was checked last; null before.</summary>
    public DateTime? CheckedAt { get; init; }

    /// <summary>Terms that were checked then.</summary>
    public int Checked { get; init; }

    /// <summary>Those of them that found it.</summary>
    public int Found { get; init; }

    /// <summary>Terms that did not find it, and that the listing lacks a word of.</summary>
    public int LackWords { get; init; }

    /// <summary>Terms whose rank is lower than at the check before.</summary>
    public int Fell { get; init; }

    /// <summary>The day of the check before; null where there was none.</summary>
    public DateOnly? FellSince { get; init; }
}
