using System.ComponentModel.DataAnnotations;
using System.Globalization;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using TinRabbit.Core;
using TinRabbit.Core.Comparing;
using TinRabbit.Core.Platforms;
using TinRabbit.Core.Words;
using TinRabbit.Market;
using TinRabbit.Server.Files.Tables;
using TinRabbit.Server.Journal;
using TinRabbit.Server.Listings;
using TinRabbit.Server.Requests;
using TinRabbit.Server.Storage;
using TinRabbit.Server.Undo;

namespace TinRabbit.Server.Features.Watch;

/// <summary>A change note with what happened after it.</summary>
/// <param name="Product">The product's name; null for the whole shop.</param>
/// <param name="Platform">The platform's name; null where it is about more than one listing.</param>
/// <param name="Term">The term it is about; null for none.</param>
/// <param name="IsAutomatic">Whether a send made it.</param>
/// <param name="CountsFrom">When shoppers' searches know of it.</param>
/// <param name="Effects">By measure; none where no figure is known, or where they were not asked for.</param>
public sealed record NoteView(
    int Id,
    int Revision,
    DateTime At,
    DateTime CountsFrom,
    IReadOnlyList<NoteKind> Kinds,
    string Text,
    bool IsAutomatic,
    int? ProductId,
    string? Product,
    int? ListingId,
    string? Platform,
    string? MarketId,
    string? Term,
    IReadOnlyList<EffectView> Effects
);

/// <summary>The journal.</summary>
/// <param name="Notes">The newest first.</param>
/// <param name="All">How many there are that pass.</param>
/// <param name="Pooled">For each kind of change, what it did on average in this shop; none where it was not asked for.</param>
public sealed record JournalView(IReadOnlyList<NoteView> Notes, int All, IReadOnlyList<PooledView> Pooled);

/// <summary>What the changes of one kind did on average.</summary>
/// <param name="Count">Changes of this kind that could be compared.</param>
/// <param name="Together">How many of them changed something else, too.</param>
/// <param name="Says">The answer as a sentence.</param>
public sealed record PooledView(
    NoteKind Kind,
    int Count,
    int Together,
    double? Difference,
    double? Low,
    double? High,
    Verdict Verdict,
    string Says
);

/// <summary>A note that the seller writes.</summary>
/// <param name="ListingId">The listing; null for the product, or with no product for the whole shop.</param>
/// <param name="MarketId">The market; null for all of the listing's.</param>
/// <param name="Term">The term it is about; null for none.</param>
/// <param name="Day">The day of the change.</param>
/// <param name="Revision">For one that is edited: the <see cref="NoteView.Revision"/> it was made from.</param>
public sealed record ChangeNoteRequest(
    [MaxLength(Bounds.NoteLength)] string Text,
    [MaxLength(10)] IReadOnlyList<NoteKind> Kinds,
    DateOnly Day,
    int? ProductId = null,
    int? ListingId = null,
    string? MarketId = null,
    [Term] string? Term = null,
    int? Revision = null
);

/// <summary>Change notes, the journal of them all, and what each kind of change has done.</summary>
internal static class NotesApi
{
    private const int MostShown = 200;

    public static void MapNotes(this IEndpointRouteBuilder app)
    {
        var api = app.MapGroup("/api/notes").WithTags("Watch");
        api.MapGet("/", GetJournal).WithName("GetJournal").ProducesValidationProblem();
        api.MapPost("/", AddNote).WithName("AddNote").ProducesValidationProblem();
        api.MapPut("/{note:int}", SaveNote).WithName("SaveNote").ProducesValidationProblem();
        api.MapDelete("/{note:int}", DeleteNote).WithName("DeleteNote");
        api.MapGet("/{note:int}/changes", GetNoteChanges).WithName("GetNoteChanges");
        api.MapGet("/export.csv", ExportJournal).WithName("ExportJournal");
    }

    private static async Task<Ok<JournalView>> GetJournal(
        TinContext db,
        [MaxLength(Bounds.NoteLength)] string? has,
        [MaxLength(Bounds.NameLength)] string? kind,
        int? productId,
        int? listingId,
        string? marketId,
        [MaxLength(Bounds.NameLength)] string? measure,
        bool? effects,
        bool? pooled,
        CancellationToken stop
    )
    {
        var journal = await Journal.Load(db, stop);
        var notes = journal.Notes(has, Named<NoteKind>(kind, "kind"), productId, listingId, marketId);
        var shown = notes.Take(MostShown).ToList();
        return TypedResults.Ok(
            new JournalView(
                effects == false ? journal.Views(shown) : await journal.Compare(db, shown, stop),
                notes.Count,
                pooled == true ? await journal.Pooled(db, Named<Measure>(measure, "measure") ?? Measure.Views, stop) : []
            )
        );
    }

    private static async Task<Ok<Changed>> AddNote(
        ChangeNoteRequest request,
        TinContext db,
        IMarket market,
        ChangeLog changes,
        CancellationToken stop
    )
    {
        Check(request, market);
        if (await db.Notes.CountAsync(stop) >= Bounds.Notes)
            throw new InvalidInputException([new("text", $"The journal has {Bounds.Notes:#,0} notes, the limit. Delete some first.")]);
        var listing = request.ListingId is { } id
            ? await db.Listings.FirstOrDefaultAsync(l => l.Id == id, stop)
                ?? throw new InvalidInputException([new("listingId", "There is no such listing any more.")])
            : null;
        if (request.ProductId is { } product && !await db.Products.AnyAsync(p => p.Id == product, stop))
            throw new InvalidInputException([new("productId", "There is no such product any more.")]);
        var at = Time(request.Day, market);
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
        return TypedResults.Ok(
            await changes.Save(
                WatchMessages.AddedNote(Short(note.Text)),
                new(Screen.Watch, note.ProductId, note.ListingId),
                [RemoveRows.Of<NoteRow>([note.Id])],
                stop
            )
        );
    }

    private static async Task<Results<Ok<Changed>, NotFound, Conflict<string>>> SaveNote(
        int note,
        ChangeNoteRequest request,
        TinContext db,
        IMarket market,
        ChangeLog changes,
        CancellationToken stop
    )
    {
        Check(request, market);
        if (await db.Notes.FirstOrDefaultAsync(n => n.Id == note, stop) is not { } row)
            return TypedResults.NotFound();
        var before = NoteState.Of(row);
        // A note of a send keeps its time and kinds: they are what happened.
        var after = row.SentId is not null
            ? before with
            {
                Text = request.Text.Trim(),
            }
            : new(before.At, before.CountsFrom, KindsOf(request), request.Text.Trim());
        if (row.SentId is null && DateOnly.FromDateTime(row.At) != request.Day)
            after = after with { At = Time(request.Day, market), CountsFrom = Time(request.Day, market) };
        var result = Versioned.Apply(row.Revision, request.Revision, after.IsSame(before), () => after.ApplyTo(row));
        if (result is SaveResult.Conflict)
            return TypedResults.Conflict("This note was changed in another window. Reload it, then change it again.");
        if (result is SaveResult.Unchanged)
            return TypedResults.Ok(new Changed(null));
        return TypedResults.Ok(
            await changes.Save(
                WatchMessages.ChangedChangeNote(Short(row.Text)),
                new(Screen.Watch, row.ProductId, row.ListingId),
                [new NoteBefore(note, before)],
                stop
            )
        );
    }

    private static async Task<Results<Ok<Changed>, NotFound>> DeleteNote(
        int note,
        TinContext db,
        ChangeLog changes,
        CancellationToken stop
    ) =>
        await db.Notes.FirstOrDefaultAsync(n => n.Id == note, stop) is { } row
            ? TypedResults.Ok(
                await changes.Delete(
                    ChangeMessages.Deleted("note", Short(row.Text)),
                    new(Screen.Watch, row.ProductId, row.ListingId),
                    [row],
                    stop
                )
            )
            : TypedResults.NotFound();

    // Word by word, from what was sent before to what this note sent.
    private static async Task<Results<Ok<List<FieldChange>>, NotFound>> GetNoteChanges(int note, TinContext db, CancellationToken stop)
    {
        if (await db.Notes.AsNoTracking().FirstOrDefaultAsync(n => n.Id == note, stop) is not { } row)
            return TypedResults.NotFound();
        if (
            row.SentId is not { } id
            || await db.Sent.AsNoTracking().FirstOrDefaultAsync(s => s.Id == id, stop) is not { } sent
            || await db.FindListing(sent.ListingId, stop) is not { } listing
        )
            return TypedResults.Ok(new List<FieldChange>());
        var before = await db
            .Sent.AsNoTracking()
            .Where(s => s.ListingId == sent.ListingId && s.MarketId == sent.MarketId && s.Id < id)
            .OrderByDescending(s => s.Id)
            .FirstOrDefaultAsync(stop);
        var platform = listing.Platform.Profile;
        return TypedResults.Ok(before is null ? [] : FieldChanges.Of(platform, before.Copy.On(platform), sent.Copy.On(platform)));
    }

    private static async Task<FileContentHttpResult> ExportJournal(
        TinContext db,
        [MaxLength(Bounds.NoteLength)] string? has,
        [MaxLength(Bounds.NameLength)] string? kind,
        int? productId,
        int? listingId,
        CancellationToken stop
    )
    {
        var journal = await Journal.Load(db, stop);
        var notes = await journal.Compare(db, journal.Notes(has, Named<NoteKind>(kind, "kind"), productId, listingId, null), stop);
        return CsvFile.Of(
            CsvText.Of(
                ["date", "changed", "note", "product", "platform", "market", "term", "views percent", "low", "high", "verdict"],
                notes.Select(n =>
                {
                    var views = n.Effects.FirstOrDefault(e => e.Measure == Measure.Views);
                    return (IEnumerable<string>)
                        [
                            n.At.ToString("yyyy-MM-dd HH:mm", CultureInfo.InvariantCulture),
                            string.Join(", ", n.Kinds.Select(k => k.ToString().ToLowerInvariant())),
                            n.Text,
                            n.Product ?? "",
                            n.Platform ?? "",
                            n.MarketId ?? "",
                            n.Term ?? "",
                            Written(views?.Difference),
                            Written(views?.Low),
                            Written(views?.High),
                            views?.Says ?? "",
                        ];
                })
            ),
            "journal.csv"
        );
    }

    // A name in an address; none where there is none.
    private static T? Named<T>(string? text, string parameter)
        where T : struct, Enum =>
        string.IsNullOrEmpty(text) ? null
        : Enum.GetNames<T>().FirstOrDefault(n => n.Equals(text, StringComparison.OrdinalIgnoreCase)) is { } name ? Enum.Parse<T>(name)
        : throw new InvalidInputException([
            new(parameter, $"“{text}” is not one of: {string.Join(", ", Enum.GetNames<T>().Select(n => n.ToLowerInvariant()))}."),
        ]);

    private static void Check(ChangeNoteRequest request, IMarket market)
    {
        if (request.Text.Trim().Length == 0 && request.Kinds.Count == 0)
            throw new InvalidInputException([new("text", "Say what was changed.")]);
        if (request.Day > market.LastDay)
            throw new InvalidInputException([new("day", $"{request.Day:yyyy-MM-dd} has not come yet.")]);
        if (request.Day < market.LastDay.AddDays(-Bounds.Days))
            throw new InvalidInputException([new("day", $"{request.Day:yyyy-MM-dd} is more than {Bounds.Days:#,0} days ago, the limit.")]);
    }

    private static List<NoteKind> KindsOf(ChangeNoteRequest request) =>
        request.Kinds.Count > 0 ? [.. request.Kinds.Distinct()] : [NoteKind.Other];

    // A change of today is of now, one of another day of its noon.
    private static DateTime Time(DateOnly day, IMarket market) =>
        day == market.Today ? market.Now : day.ToDateTime(new(12, 0), DateTimeKind.Utc);

    private static string Short(string text) => text.Length <= 60 ? text : text[..59].TrimEnd() + "…";

    private static string Written(double? number) => number?.ToString("0.#", CultureInfo.InvariantCulture) ?? "";
}
