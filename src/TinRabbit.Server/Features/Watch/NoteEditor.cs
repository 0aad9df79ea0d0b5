using TinRabbit.Server.Journal;
using TinRabbit.Server.Listings;
using TinRabbit.Server.Markets;

namespace TinRabbit.Server.Features.Watch;

/// <summary>Writes the change notes that the seller makes.</summary>
internal sealed class NoteEditor(TinContext db, IMarket market, ChangeLog changes)
{
    /// <summary>Adds a note.</summary>
    /// <exception cref="InvalidInputException">It says nothing, its day cannot be, what it is about is gone, or the journal is full.</exception>
    public async Task<Changed> Add(ChangeNoteRequest request, CancellationToken stop)
    {
        Check(request);
        if (await db.Notes.CountAsync(stop) >= Bounds.Notes)
            throw new InvalidInputException([new("text", $"The journal has {Bounds.Notes:#,0} notes, the limit. Delete some first.")]);
        var listing = request.ListingId is { } id
            ? await db.Listings.FirstOrDefaultAsync(l => l.Id == id, stop)
                ?? throw new InvalidInputException([new("listingId", "There is no such listing any more.")])
            : null;
        if (request.ProductId is { } product && !await db.Products.AnyAsync(p => p.Id == product, stop))
            throw new InvalidInputException([new("productId", "There is no such product any more.")]);
        var at = market.TimeOf(request.Day);
        var note = new NoteRow
        {
            ProductId = listing?.ProductId ?? request.ProductId,
            ListingId = listing?.Id,
            MarketId = listing is null ? null : request.MarketId,
            TermKey = request.Term is { } term && Tokens.Key(term) is { Length: > 0 } key ? key : null,
            At = at,
            CountsFrom = at,
            Kinds = KindsOf(request),
            Text = request.Text.Trim(),
        };
        db.Notes.Add(note);
        await db.SaveChangesAsync(stop);
        return await changes.Save(WatchMessages.AddedNote(Short(note.Text)), ScopeOf(note), [RemoveRows.Of<NoteRow>([note.Id])], stop);
    }

    /// <summary>Saves a note that was edited.</summary>
    /// <returns>Null where somebody else changed it meanwhile.</returns>
    /// <exception cref="InvalidInputException">It says nothing, or its day cannot be.</exception>
    public async Task<Changed?> Save(NoteRow note, ChangeNoteRequest request, CancellationToken stop)
    {
        Check(request);
        var before = NoteState.Of(note);
        var after = Edited(note, before, request);
        return Versioned.Apply(note.Revision, request.Revision, after.IsSame(before), () => after.ApplyTo(note)) switch
        {
            SaveResult.Conflict => null,
            SaveResult.Unchanged => new(null),
            _ => await changes.Save(
                WatchMessages.ChangedChangeNote(Short(note.Text)),
                ScopeOf(note),
                [new NoteBefore(note.Id, before)],
                stop
            ),
        };
    }

    /// <summary>The beginning of a note, to tell it by.</summary>
    public static string Short(string text) => text.Length <= 60 ? text : text[..59].TrimEnd() + "…";

    // A note of a send keeps its time and kinds: they are what happened.
    private NoteState Edited(NoteRow note, NoteState before, ChangeNoteRequest request)
    {
        if (note.SentId is not null)
            return before with { Text = request.Text.Trim() };
        var edited = before with { Kinds = KindsOf(request), Text = request.Text.Trim() };
        return DateOnly.FromDateTime(note.At) == request.Day
            ? edited
            : edited with
            {
                At = market.TimeOf(request.Day),
                CountsFrom = market.TimeOf(request.Day),
            };
    }

    private void Check(ChangeNoteRequest request)
    {
        if (request.Text.Trim().Length == 0 && request.Kinds.Count == 0)
            throw new InvalidInputException([new("text", "Say what was changed.")]);
        if (request.Day > market.LastDay)
            throw new InvalidInputException([new("day", $"{request.Day:yyyy-MM-dd} has not come yet.")]);
        if (request.Day < market.LastDay.AddDays(-Bounds.Days))
            throw new InvalidInputException([new("day", $"{request.Day:yyyy-MM-dd} is more than {Bounds.Days:#,0} days ago, the limit.")]);
    }

    private static ChangeScope ScopeOf(NoteRow note) => new(Screen.Watch, note.ProductId, note.ListingId);

    private static List<NoteKind> KindsOf(ChangeNoteRequest request) =>
        request.Kinds.Count > 0 ? [.. request.Kinds.Distinct()] : [NoteKind.Other];
}
