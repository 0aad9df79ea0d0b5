using TinRabbit.Core.Edits;
using TinRabbit.Server.Listings;
using TinRabbit.Server.Picks;

namespace TinRabbit.Server.Features.Shop;

/// <summary>One edit of many listings: shown with what it gains, then made where the seller chose it.</summary>
internal sealed class BulkEdit(TinContext db, IMarket market, ListingEditor editor, ChangeLog changes)
{
    /// <summary>What the edit would change, field by field.</summary>
    /// <exception cref="InvalidInputException">The edit looks for nothing.</exception>
    public async Task<EditPlan> Preview(EditRequest request, CancellationToken stop)
    {
        var edit = EditOf(request);
        var markets = market.MarketsIn(await db.Site(stop), request.Country);
        var wanted = new Dictionary<string, ILookup<int, (string Key, Home Home, WantedTerm Term)>>();
        var planned = new List<PlannedEdit>();
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

            planned.AddRange(Planned(listing, platform, copy, changed, picks, stop));
        }

        return new(planned.DistinctBy(c => c.ListingId).Count(), planned);
    }

    /// <summary>Makes the chosen changes; listings that were changed meanwhile are left alone.</summary>
    /// <exception cref="InvalidInputException">The edit looks for nothing.</exception>
    public async Task<EditDone> Apply(ApplyEditRequest request, CancellationToken stop)
    {
        var (texts, skipped, changed) = (new List<TextState>(), 0, new Changed(null));
        await db.InOneWrite(
            async () =>
            {
                foreach (var (listing, chosen) in await Chosen(request, stop))
                    if (!request.Revisions.TryGetValue(listing.Id, out var revision) || revision != listing.Revision)
                        skipped++;
                    else if (await editor.Replace(listing, listing.Copy.With(chosen), VersionReason.BulkEdit, stop) is { } text)
                        texts.Add(text);
                if (texts.Count > 0)
                    changed = await changes.Save(ShopMessages.EditedListings(texts.Count), new(Screen.Listings), [.. texts], stop);
            },
            stop
        );
        return new(changed.What, changed.Id, skipped);
    }

    private async Task<List<(ListingRow Listing, List<KeyValuePair<string, FieldValue>> Fields)>> Chosen(
        ApplyEditRequest request,
        CancellationToken stop
    )
    {
        var (edit, keys) = (EditOf(request.Edit), request.Keys.ToHashSet(StringComparer.Ordinal));
        return
        [
            .. (await Find(db.Listings, request.Edit.Ids, stop))
                .Select(l =>
                    (
                        l,
                        edit.Apply(l.Platform.Profile, l.Copy.On(l.Platform.Profile)).Where(c => keys.Contains(KeyOf(l.Id, c.Key))).ToList()
                    )
                )
                .Where(c => c.Item2.Count > 0),
        ];
    }

    private static IEnumerable<PlannedEdit> Planned(
        ListingRow listing,
        Platform platform,
        IReadOnlyDictionary<string, FieldValue> copy,
        IEnumerable<KeyValuePair<string, FieldValue>> changed,
        WantedTerm[] picks,
        CancellationToken stop
    )
    {
        double? Grip(IReadOnlyDictionary<string, FieldValue> text) =>
            picks.Length == 0 ? null : Weigher.Weigh(platform, text, picks, stop).Grip;
        var before = Grip(copy);
        foreach (var (key, value) in changed)
        {
            var (field, was) = (platform.Find(key)!, copy.GetValueOrDefault(key));
            yield return new(
                KeyOf(listing.Id, key),
                listing.Id,
                listing.Product.Name,
                platform.Name,
                field.Label,
                was?.Lines(field.Shape) ?? "",
                value.Lines(field.Shape),
                Grip(new Dictionary<string, FieldValue>(copy) { [key] = value }) - before,
                Over(field, was, value),
                listing.Revision
            );
        }
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
