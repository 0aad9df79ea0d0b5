namespace TinRabbit.Server.Undo;

/// <summary>Takes a part of a change back. Each kind of change brings its own steps, which are stored with it.</summary>
public interface IUndoStep
{
    /// <summary>Takes it back; the caller saves.</summary>
    /// <returns>The steps that make it again, in the order in which they run; none where nothing was left to take back.</returns>
    /// <exception cref="Core.Platforms.InvalidInputException">Something else has taken its place meanwhile.</exception>
    Task<IReadOnlyList<IUndoStep>> Undo(UndoContext undo, CancellationToken stop);

    /// <summary>Whether a later change to the same thing has to be undone first.</summary>
    bool IsUnder(IUndoStep later) => false;

    /// <summary>Whether it writes in portions of its own, so that saves get in between.</summary>
    bool WritesByItself => false;
}
