namespace TinRabbit.Server.Drops;

/// <summary>A kind of thing that can be dropped. Features bring theirs, and the door asks each of them.</summary>
internal interface IDropKind
{
    /// <summary>Its id.</summary>
    string Id { get; }

    /// <summary>What it is called on a screen.</summary>
    string Name { get; }

    /// <summary>How surely something is of this kind, 0–1; null where it cannot be.</summary>
    double? Fits(DropContent content);

    /// <summary>What adding it would add. Nothing is written.</summary>
    /// <exception cref="InvalidInputException">It cannot be read as this kind.</exception>
    Task<DropShown> Look(DroppedThing thing, CancellationToken stop);

    /// <summary>Adds all that was dropped of this kind, within the door's one write.</summary>
    /// <returns>What takes it back.</returns>
    /// <exception cref="InvalidInputException">It cannot be added.</exception>
    Task<IReadOnlyList<IUndoStep>> Add(IReadOnlyList<DroppedThing> things, CancellationToken stop);
}
