namespace TinRabbit.Core.Pages;

/// <summary>What is wrong with an alt text.</summary>
public enum AltProblem
{
    /// <summary>There is none.</summary>
    Missing,

    /// <summary>It is too long to be read aloud.</summary>
    TooLong,

    /// <summary>Another picture of the shop has the same.</summary>
    Same,

    /// <summary>It begins with "picture of".</summary>
    Opening,

    /// <summary>It is more than two picks in a row.</summary>
    Strung,

    /// <summary>It has a price, stock or praise.</summary>
    Advert,

    /// <summary>The picture's file is small.</summary>
    Small,

    /// <summary>It claims what the facts lack.</summary>
    Claim,

    /// <summary>No picture of its product has the words of the lead.</summary>
    NoLead,
}
