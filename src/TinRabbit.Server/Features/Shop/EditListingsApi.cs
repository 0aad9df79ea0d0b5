using System.ComponentModel.DataAnnotations;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using TinRabbit.Core;
using TinRabbit.Core.Edits;
using TinRabbit.Core.Measures;
using TinRabbit.Core.Platforms;
using TinRabbit.Core.Words;
using TinRabbit.Market;
using TinRabbit.Server.Listings;
using TinRabbit.Server.Picks;
using TinRabbit.Server.Requests;
using TinRabbit.Server.Storage;
using TinRabbit.Server.Undo;

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
        var api = app.MapGroup("/api/listings/edit").WithTags("Shop");
        api.MapPost("/preview", PreviewEdit).WithName("PreviewEdit").ProducesValidationProblem();
        api.MapPost("/", ApplyEdit).RetriesRaces().WithName("ApplyEdit").ProducesValidationProblem();
    }

    private static async Task<Ok<EditPlan>> PreviewEdit(EditRequest request, TinContext db, IMarket market, CancellationToken stop)
    {
        var edit = EditOf(request);
        var markets = market.MarketsIn(await db.Site(stop), request.Country);
        var wanted = new Dictionary<string, ILookup<int, (string Key, Home Home, WantedTerm Term)>>();
        var changes = new List<PlannedEdit>();
        foreach (var listing in await Find(db.Listings.AsNoTracking(), request.Ids, stop))
        {
            stop.ThrowIfCancellationRequested();
            var platform = listing.Platform.Profile;
            var copy = listing.Copy.On(platform);
            var changed = edit.Apply(platform, copy);
            if (changed.Count == 0)
                continue;
            WantedTerm[] picks = [];
            if (markets.GetValueOrDefault(platform.Id) is { } marketId)
            {
                if (!wanted.TryGetValue(marketId, out var all))
                    wanted[marketId] = all = await db.WantedByProduct(marketId, stop);
                picks = [.. all[listing.ProductId].Select(p => p.Term)];
            }

            var known = picks.Length > 0;
            var before = known ? Weigher.Weigh(platform, copy, picks, stop).Grip : 0;
            foreach (var (key, value) in changed)
            {
                var field = platform.Find(key)!;
                double? gain = known
                    ? Weigher.Weigh(platform, new Dictionary<string, FieldValue>(copy) { [key] = value }, picks, stop).Grip - before
                    : null;
                changes.Add(
                    new(
                        KeyOf(listing.Id, key),
                        listing.Id,
                        listing.Product.Name,
                        platform.Name,
                        field.Label,
                        (copy.GetValueOrDefault(key)?.Lines(field.Shape) ?? ""),
                        value.Lines(field.Shape),
                        gain,
                        Over(field, copy.GetValueOrDefault(key), value),
                        listing.Revision
                    )
                );
            }
        }

        return TypedResults.Ok(new EditPlan(changes.DistinctBy(c => c.ListingId).Count(), changes));
    }

    private static async Task<Ok<EditDone>> ApplyEdit(
        ApplyEditRequest request,
        TinContext db,
        ListingEditor editor,
        ChangeLog changes,
        CancellationToken stop
    )
    {
        var edit = EditOf(request.Edit);
        var keys = request.Keys.ToHashSet(StringComparer.Ordinal);
        var (texts, skipped) = (new List<TextState>(), 0);
        var changed = new Changed(null);
        await db.InOneWrite(
            async () =>
            {
                foreach (var listing in await Find(db.Listings, request.Edit.Ids, stop))
                {
                    var platform = listing.Platform.Profile;
                    var copy = listing.Copy.On(platform);
                    var chosen = edit.Apply(platform, copy).Where(c => keys.Contains(KeyOf(listing.Id, c.Key))).ToList();
                    if (chosen.Count == 0)
                        continue;
                    if (!request.Revisions.TryGetValue(listing.Id, out var revision) || revision != listing.Revision)
                    {
                        skipped++;
                        continue;
                    }

                    if (await editor.Replace(listing, listing.Copy.With(chosen), VersionReason.BulkEdit, stop) is { } text)
                        texts.Add(text);
                }

                if (texts.Count > 0)
                    changed = await changes.Save(ShopMessages.EditedListings(texts.Count), new(Screen.Listings), [.. texts], stop);
            },
            stop
        );
        return TypedResults.Ok(new EditDone(changed.What, changed.Id, skipped));
    }

    private static ListingEdit EditOf(EditRequest request)
    {
        if (request.Find.Trim().Length == 0)
            throw new InvalidInputException([new("find", request.Kind == EditKind.Replace ? "Enter the text to find." : "Enter the tag.")]);
        if (request.Kind != EditKind.Replace && Tokens.Of(request.Find).Count == 0)
            throw new InvalidInputException([new("find", "A tag needs at least one letter or digit.")]);
        return new(request.Kind, request.Find, request.Replacement)
        {
            MatchesCase = request.MatchesCase,
            WholeWords = request.WholeWords,
            Roles = request.Roles,
        };
    }

    private static async Task<IReadOnlyList<ListingRow>> Find(
        IQueryable<ListingRow> listings,
        IReadOnlyList<int> ids,
        CancellationToken stop
    )
    {
        var wanted = ids.ToHashSet();
        var all = new List<ListingRow>(wanted.Count);
        foreach (var some in wanted.Order().Chunk(500))
            all.AddRange(
                await listings
                    .Include(l => l.Platform)
                    .Include(l => l.Product)
                    .Where(l => some.Contains(l.Id))
                    .OrderBy(l => l.Id)
                    .AsSingleQuery()
                    .ToListAsync(stop)
            );
        return all;
    }

    private static string KeyOf(int listing, string field) => $"{listing}/{field}";

    // Only what the edit itself makes too long.
    private static string? Over(Field field, FieldValue? before, FieldValue after)
    {
        var (was, room) = (RoomUsed.Of(field, before), RoomUsed.Of(field, after));
        return room.Over > was.Over ? LimitMessages.TooLong(field.Label, room.Over, field.Limit!.Unit)
            : room.ItemsOver > was.ItemsOver ? LimitMessages.TooMany(field.Label, room.ItemsOver)
            : null;
    }
}
