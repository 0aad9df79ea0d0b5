namespace TinRabbit.Server.Journal;

/// <summary>How far a found check is.</summary>
public enum CheckState
{
    /// <summary>It is under way, also after a restart.</summary>
    Running,

    /// <summary>The seller stopped it, or the market did not answer; it can be resumed.</summary>
    Stopped,

    /// <summary>Every term was asked for.</summary>
    Finished,
}
