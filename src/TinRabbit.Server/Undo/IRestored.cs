namespace TinRabbit.Server.Undo;

/// <summary>A deleted row whose place can have been taken meanwhile.</summary>
public interface IRestored : IDeletable
{
    /// <summary>Why it cannot come back, as a sentence; null where it can.</summary>
    Task<string?> WhyNot(TinContext db, CancellationToken stop);
}
