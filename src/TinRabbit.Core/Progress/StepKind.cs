namespace TinRabbit.Core.Progress;

/// <summary>What can be the next useful thing to do for a listing.</summary>
public enum StepKind
{
    /// <summary>Nothing is picked yet: all figures rest on the picks.</summary>
    PickTerms,

    /// <summary>The platform refuses the listing as it is.</summary>
    FixRequired,

    /// <summary>The picks have few of the words that the first listings use.</summary>
    PickUsual,

    /// <summary>Picks say more than the facts do.</summary>
    FillFacts,

    /// <summary>No lead is chosen.</summary>
    ChooseLead,

    /// <summary>A single edit gains much.</summary>
    Move,

    /// <summary>There is room that no pick is left to fill.</summary>
    PickMore,

    /// <summary>What shoppers can find is not the text that is here.</summary>
    Publish,

    /// <summary>The market’s search does not show what was sent yet.</summary>
    Wait,

    /// <summary>It is not known whether the market finds what was published.</summary>
    Check,

    /// <summary>The market does not find it for terms whose words it lacks.</summary>
    NotFound,

    /// <summary>Its rank fell.</summary>
    RankFell,

    /// <summary>A single edit gains a little.</summary>
    SmallMove,
}
