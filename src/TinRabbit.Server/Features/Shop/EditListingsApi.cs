using TinRabbit.Core.Edits;

namespace TinRabbit.Server.Features.Shop;

/// <summary>An edit of many listings.</summary>
/// <param name="Find">The text that is replaced, or the tag.</param>
/// <param name="Replacement">What comes in its place; empty removes it.</param>
/// <param name="Roles">The roles of the fields that are searched; empty for every field of text.</param>
public sealed record EditRequest(
    [MaxLength(Bounds.Listings)] IReadOnlyList<int> Ids,
    EditKind Kind,
    [MaxLength(Bounds.NoteLength)] string Find,
    [MaxLength(Bounds.NoteLength)] string Replacement,
    bool MatchesCase,
    bool WholeWords,
    [MaxLength(40), EachMaxLength(Bounds.NameLength)] IReadOnlyList<string> Roles,
    [MaxLength(8)] string Country
);

/// <summary>A change that the edit would make.</summary>
/// <param name="Key">Names it: the listing and the field.</param>
/// <param name="Before">The field's text, its items one a line.</param>
/// <param name="After">The same afterwards.</param>
/// <param name="Grip">Grip afterwards − grip before, of this change alone, in points; null where no volume of the picks is known.</param>
/// <param name="Over">Why the platform would refuse it; null where it fits, or was too long before already.</param>
/// <param name="Revision">The listing's revision that it was worked out from.</param>
public sealed record PlannedEdit(
    string Key,
    int ListingId,
    string Product,
    string Platform,
    string Field,
    string Before,
    string After,
    double? Grip,
    string? Over,
    int Revision
);

/// <summary>What an edit would change.</summary>
/// <param name="Listings">How many listings it would change.</param>
public sealed record EditPlan(int Listings, IReadOnlyList<PlannedEdit> Changes);

/// <summary>An edit to make.</summary>
/// <param name="Keys">The <see cref="PlannedEdit.Key"/> of the changes that the seller chose.</param>
/// <param name="Revisions">The revisions that the plan was made from, by listing.</param>
public sealed record ApplyEditRequest(
    EditRequest Edit,
    [MaxLength(Bounds.Listings * 10)] IReadOnlyList<string> Keys,
    IReadOnlyDictionary<int, int> Revisions
);

/// <summary>What was changed.</summary>
/// <param name="Skipped">Listings that were changed elsewhere meanwhile, and left alone.</param>
public sealed record EditDone(string? What, int? Id, int Skipped);

internal static class EditListingsApi
{
    public static void MapEditListings(this IEndpointRouteBuilder app)
    {
        var api = app.MapGroup("/api/listings/edit");
        api.MapPost("/preview", PreviewEdit);
        api.MapPost("/", ApplyEdit).RetriesRaces();
    }

    private static async Task<EditPlan> PreviewEdit(EditRequest request, BulkEdit bulk, CancellationToken stop) =>
        await bulk.Preview(request, stop);

    private static async Task<EditDone> ApplyEdit(ApplyEditRequest request, BulkEdit bulk, CancellationToken stop) =>
        await bulk.Apply(request, stop);
}
