namespace TinRabbit.Core.Reviews;

/// <summary>Whether buyers who use a phrase were pleased.</summary>
public enum ReviewTone
{
    /// <summary>Four stars or more on average.</summary>
    Praise,

    /// <summary>Three stars or fewer on average.</summary>
    Complaint,

    /// <summary>In between, or without stars.</summary>
    Mixed,
}
