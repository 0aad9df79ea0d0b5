using Microsoft.EntityFrameworkCore;
using TinRabbit.Server.Storage;

namespace TinRabbit.Server.Undo;

/// <summary>Every change that can be undone: what was done is noted with the steps that take it back.</summary>
public sealed class ChangeLog(TinContext db, TimeProvider clock, IServiceProvider services)
{
    private static long _lastTime;

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
                    At = clock.GetUtcNow().UtcDateTime,
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
    /// <param name="removal">What deletes it again once it is back; null where the rows have nothing that belongs to them.</param>
    public Task<Changed> Delete(
        string what,
        ChangeScope scope,
        IEnumerable<IDeletable> rows,
        CancellationToken stop,
        IUndoStep? removal = null
    ) => Save(what, scope, [MarkDeleted(rows, removal)], stop);

    /// <summary>Deletes rows so that they can come back; the caller saves.</summary>
    /// <returns>What brings them back.</returns>
    public RestoreDeleted MarkDeleted(IEnumerable<IDeletable> rows, IUndoStep? removal = null)
    {
        var now = Now();
        foreach (var row in rows)
            row.DeletedAt = now;
        return new(now, removal);
    }

    /// <summary>Takes a change back. With its id, only that one: not another that two windows have undone up to meanwhile.</summary>
    /// <param name="productId">The product that is open; null for the shop's own changes only.</param>
    /// <param name="id">The change; null for the last one.</param>
    /// <param name="stop">Stops waiting.</param>
    /// <returns>What was undone, in words; null where there is nothing to undo, or where later changes to the same thing come first.</returns>
    public Task<string?> Undo(int? productId, int? id, CancellationToken stop) =>
        Turn(Of(productId).Where(c => c.UndoneAt == null).OrderByDescending(c => c.Id), id, clock.GetUtcNow().UtcDateTime, stop);

    /// <summary>Makes a change again that was undone.</summary>
    /// <param name="productId">The product that is open; null for the shop's own changes only.</param>
    /// <param name="id">The change; null for the one that was undone last.</param>
    /// <param name="stop">Stops waiting.</param>
    /// <returns>What was made again, in words; null where there is nothing, or where the same thing was changed since.</returns>
    public Task<string?> Redo(int? productId, int? id, CancellationToken stop) =>
        Turn(Of(productId).Where(c => c.UndoneAt != null).OrderByDescending(c => c.UndoneAt), id, null, stop);

    /// <summary>Whether a change can be turned now, by the changes to the same product that are in force.</summary>
    public static bool IsFree(ChangeRow change, IEnumerable<ChangeRow> inForce) =>
        !inForce.Any(later =>
            (change.UndoneAt is { } at ? later.At > at : later.Id > change.Id) && change.Steps.Any(step => later.Steps.Any(step.IsUnder))
        );

    private IQueryable<ChangeRow> Of(int? productId) => db.Changes.Where(c => c.ProductId == productId || c.ProductId == null);

    // An undone change keeps the steps that make it again, so undoing and making again are one and the same.
    private async Task<string?> Turn(IQueryable<ChangeRow> changes, int? id, DateTime? undoneAt, CancellationToken stop)
    {
        if (await changes.AsNoTracking().FirstOrDefaultAsync(c => id == null || c.Id == id, stop) is not { } found)
            return null;
        string? done = null;
        if (found.Steps.Any(s => s.WritesByItself))
            await TurnFound();
        else
            await db.InOneWrite(TurnFound, stop);
        return done;

        // Looks again once nobody else writes: another request may have turned it meanwhile.
        async Task TurnFound()
        {
            if (await changes.FirstOrDefaultAsync(c => c.Id == found.Id, stop) is not { } change)
                return;
            var later = db.Changes.AsNoTracking().Where(c => c.ProductId == change.ProductId && c.UndoneAt == null);
            var others = await (change.UndoneAt is { } at ? later.Where(c => c.At > at) : later.Where(c => c.Id > change.Id)).ToListAsync(
                stop
            );
            if (!IsFree(change, others))
                return;
            await Run(change, undoneAt, stop);
            done = change.What;
        }
    }

    private async Task Run(ChangeRow change, DateTime? undoneAt, CancellationToken stop)
    {
        var again = new List<IUndoStep>();
        foreach (var step in change.Steps)
        {
            again.InsertRange(0, await step.Undo(new(db, Now(), services), stop));
            await db.SaveChangesAsync(stop);
        }

        (change.Steps, change.UndoneAt) = (again, undoneAt);
        // Nothing was left of it, so there is nothing to make again.
        if (again.Count == 0)
            db.Changes.Remove(change);
        await db.SaveChangesAsync(stop);
    }

    // What is deleted together is known by its time, so no two deletions have the same.
    private DateTime Now()
    {
        while (true)
        {
            var last = Interlocked.Read(ref _lastTime);
            var now = Math.Max(clock.GetUtcNow().UtcTicks, last + 1);
            if (Interlocked.CompareExchange(ref _lastTime, now, last) == last)
                return new(now, DateTimeKind.Utc);
        }
    }
}
