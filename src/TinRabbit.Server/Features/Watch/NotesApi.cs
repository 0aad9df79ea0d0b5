using TinRabbit.Core.Watching;
using TinRabbit.Server.Files.Tables;
using TinRabbit.Server.Journal;
using TinRabbit.Server.Listings;

namespace TinRabbit.Server.Features.Watch;

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

    private static readonly string[] JournalColumns =
    [
        "date",
        "changed",
        "note",
        "product",
        "platform",
        "market",
        "term",
        "views percent",
        "low",
        "high",
        "verdict",
    ];

    public static void MapNotes(this IEndpointRouteBuilder app)
    {
        var api = app.MapGroup("/api/notes");
        api.MapGet("/", GetJournal);
        api.MapPost("/", AddNote);
        api.MapPut("/{note:int}", SaveNote).RetriesRaces();
        api.MapDelete("/{note:int}", DeleteNote);
        api.MapGet("/{note:int}/changes", GetNoteChanges);
        api.MapGet("/{note:int}/ranks", GetNoteRanks);
        api.MapGet("/export.csv", ExportJournal);
    }

    private static async Task<JournalView> GetJournal(
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
        return new JournalView(
            effects == false ? journal.Views(shown) : await journal.Compare(db, shown, stop),
            notes.Count,
            pooled == true ? await journal.Pooled(db, Named<DailyMeasure>(measure, "measure") ?? DailyMeasure.Views, stop) : []
        );
    }

    private static async Task<Changed> AddNote(ChangeNoteRequest request, NoteEditor editor, CancellationToken stop) =>
        await editor.Add(request, stop);

    private static async Task<Results<Ok<Changed>, Conflict<string>>> SaveNote(
        int note,
        ChangeNoteRequest request,
        TinContext db,
        NoteEditor editor,
        CancellationToken stop
    ) =>
        await db.Notes.FirstOrDefaultAsync(n => n.Id == note, stop) is not { } row ? throw new NotThereException()
        : await editor.Save(row, request, stop) is { } changed ? TypedResults.Ok(changed)
        : TypedResults.Conflict("This note was changed in another window. Reload it, then change it again.");

    private static async Task<Changed> DeleteNote(int note, TinContext db, ChangeLog changes, CancellationToken stop)
    {
        var row = await db.Notes.FirstOrDefaultAsync(n => n.Id == note, stop).OrNotThere();
        return await changes.Delete(
            ChangeMessages.Deleted("note", NoteEditor.Short(row.Text)),
            new(Screen.Watch, row.ProductId, row.ListingId),
            [row],
            stop
        );
    }

    // Word by word, from what was sent before to what this note sent.
    private static async Task<List<FieldChange>> GetNoteChanges(int note, TinContext db, CancellationToken stop)
    {
        var row = await db.Notes.AsNoTracking().FirstOrDefaultAsync(n => n.Id == note, stop).OrNotThere();
        if (
            row.SentId is not { } id
            || await db.Sent.AsNoTracking().FirstOrDefaultAsync(s => s.Id == id, stop) is not { } sent
            || await db.FindListing(sent.ListingId, stop) is not { } listing
        )
            return new List<FieldChange>();
        var before = await db
            .Sent.AsNoTracking()
            .Where(s => s.ListingId == sent.ListingId && s.MarketId == sent.MarketId && s.Id < id)
            .OrderByDescending(s => s.Id)
            .FirstOrDefaultAsync(stop);
        var platform = listing.Platform.Profile;
        return before is null ? [] : FieldChanges.Of(platform, before.Copy.On(platform), sent.Copy.On(platform));
    }

    // Of a note about one listing in one market; the first time it was sent there is nothing before.
    private static async Task<RankEffectView?> GetNoteRanks(int note, TinContext db, CancellationToken stop)
    {
        var journal = await Journal.Load(db, stop);
        if (journal.WindowsOf(note) is not var (listing, market, windows))
            return null;
        var (effect, days) = await db.RanksAround(listing, market, windows, stop);
        return new(effect, days.Count > 0 ? days[0] : null, days.Count > 0 ? days[^1] : null, WatchMessages.Ranks(effect));
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
        return CsvFile.Of(CsvText.Of(JournalColumns, notes.Select(JournalRow)), "journal.csv");
    }

    private static string[] JournalRow(NoteView note)
    {
        var views = note.Effects.FirstOrDefault(e => e.Measure == DailyMeasure.Views);
        return
        [
            note.At.ToString("yyyy-MM-dd HH:mm", CultureInfo.InvariantCulture),
            string.Join(", ", note.Kinds.Select(k => k.ToString().ToLowerInvariant())),
            note.Text,
            note.Product ?? "",
            note.Platform ?? "",
            note.MarketId ?? "",
            note.Term ?? "",
            Written(views?.Difference),
            Written(views?.Low),
            Written(views?.High),
            views?.Says ?? "",
        ];
    }

    // A name in an address; none where there is none.
    private static T? Named<T>(string? text, string parameter)
        where T : struct, Enum =>
        string.IsNullOrEmpty(text) ? null
        : Enum.GetNames<T>().FirstOrDefault(n => n.Equals(text, StringComparison.OrdinalIgnoreCase)) is { } name ? Enum.Parse<T>(name)
        : throw new InvalidInputException([
            new(parameter, $"“{text}” is not one of: {string.Join(", ", Enum.GetNames<T>().Select(n => n.ToLowerInvariant()))}."),
        ]);

    private static string Written(double? number) => number?.ToString("0.#", CultureInfo.InvariantCulture) ?? "";
}
