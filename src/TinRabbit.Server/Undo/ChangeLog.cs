using System.Linq.Expressions;

namespace TinRabbit.Server.Undo;

/// <summary>Every change that can be undone: what was done is noted with the steps that take it back.</summary>
public sealed class ChangeLog(TinContext db, IServiceProvider services)
{
    /// <summary>Notes a change with what takes it back; the caller saves.</summary>
    public ChangeRow Note(string what, ChangeScope scope, params IReadOnlyList<IUndoStep> steps) =>
        db
            .Changes.Add(
                new()
                {
                    Screen = scope.Screen,
                    ProductId = scope.ProductId,
                    ListingId = scope.ListingId,
                    PageId = scope.PageId,
                    What = what,
                    Steps = steps,
                    At = Now(),
                }
            )
            .Entity;

    /// <summary>Notes a change and saves.</summary>
    public async Task<Changed> Save(string what, ChangeScope scope, IReadOnlyList<IUndoStep> steps, CancellationToken stop)
    {
        var change = Note(what, scope, steps);
        await db.SaveChangesAsync(stop);
        return new(what, change.Id);
    }

    /// <summary>Deletes rows so that they can come back, and saves.</summary>
    /// <param name="what">The change in words.</param>
    /// <param name="scope">What it belongs to.</param>
    /// <param name="rows">Everything that goes.</param>
    /// <param name="stop">Stops waiting.</param>
    public Task<Changed> Delete(string what, ChangeScope scope, IEnumerable<IDeletable> rows, CancellationToken stop) =>
        Save(what, scope, [MarkDeleted(rows)], stop);

    /// <summary>Deletes rows so that they can come back; the caller saves.</summary>
    /// <param name="rows">Everything that goes.</param>
    /// <param name="removal">What deletes them again once they are back, with what belongs to them by then; null where nothing does.</param>
    /// <returns>What brings them back.</returns>
    public RestoreDeleted MarkDeleted(IEnumerable<IDeletable> rows, IUndoStep? removal = null)
    {
        var now = Now();
        foreach (var row in rows)
            row.DeletedAt = now;
        return new(now, removal);
    }

    /// <summary>Takes a change back. With its id, only that one: not another that two windows have undone up to meanwhile.</summary>
    /// <param name="here">Where to look for the last one.</param>
    /// <param name="id">The change; null for the last one.</param>
    /// <param name="isSure">Whether the seller has said yes to a large change.</param>
    /// <param name="stop">Stops waiting.</param>
    /// <returns>What was undone; nothing where there is nothing to undo, or where later changes to the same thing come first.</returns>
    public Task<Changed> Undo(ChangesHere here, int? id, bool isSure, CancellationToken stop) =>
        Turn(
            Of(here, id).Where(c => c.UndoneAt == null && (here.Since == null || c.At > here.Since)).OrderByDescending(c => c.Id),
            isSure,
            stop
        );

    /// <summary>Makes a change again that was undone.</summary>
    /// <param name="here">Where to look for the one that was undone last.</param>
    /// <param name="id">The change; null for the one that was undone last.</param>
    /// <param name="isSure">Whether the seller has said yes to a large change.</param>
    /// <param name="stop">Stops waiting.</param>
    /// <returns>What was made again; nothing where there is nothing, or where the same thing was changed since.</returns>
    public Task<Changed> Redo(ChangesHere here, int? id, bool isSure, CancellationToken stop) =>
        Turn(
            Of(here, id)
                .Where(c => c.UndoneAt != null && (here.Since == null || c.UndoneAt > here.Since))
                .OrderByDescending(c => c.UndoneAt),
            isSure,
            stop
        );

    /// <summary>Whether a change can be turned now: undone before what was changed after it, or made again before what was undone after it.</summary>
    /// <param name="change">The change.</param>
    /// <param name="others">Other changes to the same product; those that do not come first are left out.</param>
    public static bool IsFree(ChangeRow change, IEnumerable<ChangeRow> others) =>
        !others
            .AsQueryable()
            .Where(ComesFirst(change))
            .AsEnumerable()
            .Any(other => change.Steps.Any(step => other.Steps.Any(step.IsUnder)));

    // While a change is in force, what was changed after it; once it is undone, what was undone or changed after that.
    private static Expression<Func<ChangeRow, bool>> ComesFirst(ChangeRow change) =>
        change.UndoneAt is { } at
            ? other => other.UndoneAt == null ? other.At > at : other.UndoneAt > at
            : other => other.UndoneAt == null && other.Id > change.Id;

    private IQueryable<ChangeRow> Of(ChangesHere here, int? id) =>
        id is { } change ? db.Changes.Where(c => c.Id == change) : db.Changes.Where(here.Holds);

    // An undone change keeps the steps that make it again, so undoing and making again are one and the same.
    private async Task<Changed> Turn(IQueryable<ChangeRow> changes, bool isSure, CancellationToken stop)
    {
        if (await changes.AsNoTracking().FirstOrDefaultAsync(stop) is not { } found)
            return new(null);
        if (found.IsLarge && !isSure)
            return new(null, found.Id, Asks: found.What);
        string? done = null;
        if (found.Steps.Any(s => s.WritesByItself))
            await TurnFound();
        else
            await db.InOneWrite(TurnFound, stop);
        return new(done, done is null ? null : found.Id);

        // Looks again once nobody else writes: another request may have turned it meanwhile.
        async Task TurnFound()
        {
            if (await changes.FirstOrDefaultAsync(c => c.Id == found.Id, stop) is not { } change)
                return;
            var others = db.Changes.AsNoTracking().Where(c => c.ProductId == change.ProductId).Where(ComesFirst(change));
            if (!IsFree(change, await others.ToListAsync(stop)))
                return;
            await Run(change, stop);
            done = change.What;
        }
    }

    private async Task Run(ChangeRow change, CancellationToken stop)
    {
        var again = new List<IUndoStep>();
        foreach (var step in change.Steps)
        {
            again.InsertRange(0, await step.Undo(new(db, Now(), services), stop));
            await db.SaveChangesAsync(stop);
        }

        (change.Steps, change.UndoneAt) = (again, change.UndoneAt is null ? Now() : null);
        // Nothing was left of it, so there is nothing to make again.
        if (again.Count == 0)
            db.Changes.Remove(change);
        await db.SaveChangesAsync(stop);
    }

    private DateTime Now() => services.GetRequiredService<ChangeTimes>().Next(db.Now);
}
