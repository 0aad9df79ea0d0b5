using TinRabbit.Core.Findings;
using TinRabbit.Server.Hosting;
using TinRabbit.Server.Listings;
using TinRabbit.Server.Picks;

namespace TinRabbit.Server.Features.Write;

/// <summary>A finding as it is shown.</summary>
/// <param name="Key">Identifies it until the text it is about changes.</param>
/// <param name="Aside">Whether the seller dismissed it.</param>
/// <param name="OtherFixes">Other edits that would settle it as well.</param>
/// <param name="Claim">The claim that is missing in the facts; null for other findings.</param>
public sealed record FindingView(
    string Key,
    string Id,
    Level Level,
    string Field,
    int Item,
    int Start,
    int Length,
    string Why,
    double Cost,
    FixView? Fix,
    bool Aside,
    IReadOnlyList<FixView> OtherFixes,
    Claim? Claim
)
{
    public static FindingView Of(Finding f, bool aside) =>
        new(
            f.Key,
            f.Id,
            f.Level,
            f.Field,
            f.Item,
            f.Start,
            f.Length,
            f.Why,
            f.Cost,
            f.Fix is { } fix ? FixView.Of(fix) : null,
            aside,
            [.. f.OtherFixes.Select(FixView.Of)],
            f.Claim
        );
}

/// <summary>An edit that fixes a finding.</summary>
/// <param name="Value">The field's new value.</param>
public sealed record FixView(string Label, string Field, JsonNode? Value)
{
    public static FixView Of(Fix fix) => new(fix.Label, fix.Field, CopyJson.WriteValue(fix.Value));
}

/// <summary>What a check says.</summary>
/// <param name="Findings">What could be better, the most important first.</param>
/// <param name="Passed">The checks that apply and found nothing.</param>
/// <param name="LeadPlaces">Where the lead stands; empty where none is chosen.</param>
public sealed record Checked(IReadOnlyList<FindingView> Findings, IReadOnlyList<PassedCheck> Passed, IReadOnlyList<LeadPlace> LeadPlaces);

/// <summary>A finding to dismiss, or to restore.</summary>
public sealed record AsideRequest([MaxLength(Bounds.NoteLength)] string Key, bool Aside);

internal static class CheckApi
{
    public static void MapCheck(this IEndpointRouteBuilder app)
    {
        app.MapPost("/api/listings/{id:int}/check", CheckListing).WithRequestTimeout(ProblemAnswers.Computes);
        app.MapPut("/api/listings/{id:int}/asides", PutAside).RetriesRaces();
    }

    private static async Task<Checked> CheckListing(
        int id,
        DraftOf draft,
        TinContext db,
        PreparedPicksCache ready,
        ListingChecker checker,
        CancellationToken stop
    )
    {
        var open = await OpenDraft.Open(db, ready, id, draft, stop).OrNotThere();
        var aside = (await db.Asides.Where(a => a.ListingId == id).Select(a => a.Key).ToListAsync(stop)).ToHashSet();
        var check = await checker.Check(db, open, draft.MarketId, stop);
        // A page's alt texts are those of its pictures: what is said of the field is said of them.
        var alt = open.Platform.Role("alt")?.Key;
        return new Checked(
            [.. check.Findings.Select(f => FindingView.Of(AboutPictures(f, alt), aside.Contains(f.Key)))],
            check.Passed,
            check.LeadPlaces
        );
    }

    private static Finding AboutPictures(Finding finding, string? alt) =>
        alt is null || finding.Field != alt
            ? finding
            : finding with
            {
                Field = ListingToCheck.PicturesKey,
                Fix = finding.Fix is { } fix ? fix with { Field = ListingToCheck.PicturesKey } : null,
                OtherFixes = [.. finding.OtherFixes.Select(f => f with { Field = ListingToCheck.PicturesKey })],
            };

    private static async Task<NoContent> PutAside(int id, AsideRequest request, TinContext db, ChangeLog changes, CancellationToken stop)
    {
        if (!await db.Listings.AnyAsync(l => l.Id == id, stop))
            throw new NotThereException();
        var row = await db.Asides.FirstOrDefaultAsync(a => a.ListingId == id && a.Key == request.Key, stop);
        if (request.Aside == (row is not null))
            return TypedResults.NoContent();
        if (row is null)
            db.Asides.Add(AsideRow.Of(id, request.Key, db.Now));
        else
            db.Asides.Remove(row);
        var scope = new ChangeScope(Screen.Write, await db.ProductOf(id, stop), id);
        changes.Note(WriteMessages.DismissedFinding(!request.Aside), scope, new DismissedBefore(id, request.Key, !request.Aside));
        await db.SaveChangesAsync(stop);
        return TypedResults.NoContent();
    }
}
