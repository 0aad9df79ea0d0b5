namespace TinRabbit.Server.Listings;

/// <summary>A listing's text that a change made, and the one before it: undone only while the listing still has the text that the change made.</summary>
public sealed record TextState(int ListingId, ListingText Before, ListingText After) : IUndoStep
{
    /// <summary>The take that was saved with it; null where none was.</summary>
    public string? Take { get; init; }

    /// <summary>The take that was removed with it; null where none was.</summary>
    public string? RemovedTake { get; init; }

    public async Task<IReadOnlyList<IUndoStep>> Undo(UndoContext undo, CancellationToken stop) =>
        await undo.Get<ListingEditor>().Revert(this, stop) is { } again ? [again] : [];
}
