using TinRabbit.Server.Journal;
using TinRabbit.Server.Listings;
using TinRabbit.Server.Picks;

namespace TinRabbit.Server.Features.Watch;

/// <summary>The terms of all of the shop's listings in one market, so that it does not repeat itself and its listings do not compete.</summary>
internal sealed class OwnTerms(TinContext db, IMarket market)
{
    /// <summary>Every term that a listing there picks, those that most of them pick first.</summary>
    /// <exception cref="NotThereException">There is no such market.</exception>
    public async Task<OwnTermsView> Of(string marketId, CancellationToken stop)
    {
        var (platform, listings) = await Listings(marketId, stop);
        var picks = await db.WantedByProduct(marketId, stop);
        var finds = await LastFinds(marketId, stop);
        var terms = new Dictionary<string, List<Use>>(StringComparer.Ordinal);
        foreach (var listing in listings)
        {
            var own = picks[listing.ProductId].ToList();
            var weighed = Weigher.Weigh(platform, listing.Copy.On(platform), [.. own.Select(p => p.Term)], stop).Terms;
            for (var i = 0; i < own.Count; i++)
            {
                if (!terms.TryGetValue(own[i].Key, out var uses))
                    terms[own[i].Key] = uses = [];
                uses.Add(new(listing, own[i].Term, weighed[i].Grade != Grade.Missing, finds.GetValueOrDefault((listing.Id, own[i].Key))));
            }
        }

        return new(
            listings.Count,
            [
                .. terms
                    .Select(t => new OwnTerm(
                        t.Key,
                        t.Value[0].Term.Text,
                        t.Value[0].Term.Volume is { } volume ? (long)volume : null,
                        t.Value.Count,
                        t.Value.Count(u => u.IsHeld),
                        t.Value.Count(u => u.Listing.LeadKey == t.Key),
                        t.Value.Count(u => u.Find is not null),
                        t.Value.Count(u => u.Find is { Found: true }),
                        t.Value.Min(u => u.Find?.Rank)
                    ))
                    .OrderByDescending(t => t.Picked)
                    .ThenByDescending(t => t.Volume ?? -1)
                    .ThenBy(t => t.Key, StringComparer.Ordinal),
            ]
        );
    }

    /// <summary>A term in every listing that picks it, holds it or was checked for it: those that are found first, by their rank.</summary>
    /// <exception cref="NotThereException">There is no such market.</exception>
    public async Task<TermInShop> Across(string marketId, string term, CancellationToken stop)
    {
        var (platform, listings) = await Listings(marketId, stop);
        var key = Tokens.Key(term);
        if (key.Length == 0)
            throw new InvalidInputException([new("term", "Enter a term.")]);
        var homes = await db.Picks.AsNoTracking().Where(p => p.Key == key).ToDictionaryAsync(p => p.ProductId, p => p.Home, stop);
        var finds = await LastFinds(marketId, stop, key);
        var prepared = TermSet.Prepare(platform, [term]);
        var uses = new List<ListingWithTerm>();
        foreach (var listing in listings)
        {
            var weighed = Weigher.Weigh(prepared, listing.Copy.On(platform), [new(term)], stop).Terms[0];
            var find = finds.GetValueOrDefault((listing.Id, key));
            if (weighed.Grade == Grade.Missing && find is null && !homes.ContainsKey(listing.ProductId))
                continue;
            var grades = weighed.Explain().Fields;
            uses.Add(
                new(
                    listing.Id,
                    listing.ProductId,
                    listing.Product,
                    homes.TryGetValue(listing.ProductId, out var home) ? home : null,
                    listing.LeadKey == key,
                    weighed.Grade,
                    [.. platform.IndexedFields.Where((_, f) => grades[f] != Grade.Missing).Select(f => f.Label)],
                    find?.Found,
                    find?.Rank,
                    find?.Day
                )
            );
        }

        return new(
            term,
            key,
            [
                .. uses.OrderBy(u => u.Rank ?? int.MaxValue)
                    .ThenByDescending(u => u.Found == true)
                    .ThenByDescending(u => u.IsLead)
                    .ThenByDescending(u => u.Holds)
                    .ThenBy(u => u.ListingId),
            ]
        );
    }

    private sealed record OwnListing(int Id, int ProductId, string Product, ListingText Copy, string? LeadKey);

    private sealed record LastFind(bool Found, int? Rank, DateOnly Day);

    private sealed record Use(OwnListing Listing, WantedTerm Term, bool IsHeld, LastFind? Find);

    private async Task<(Platform Platform, List<OwnListing> Listings)> Listings(string marketId, CancellationToken stop)
    {
        var place = market.PlacesWith(await db.Site(stop)).FirstOrDefault(p => p.Id == marketId) ?? throw new NotThereException();
        var platform = await db.Platforms.FindAsync([place.PlatformId], stop).AsTask().OrNotThere();
        var listings = await db
            .Listings.AsNoTracking()
            .Where(l => l.PlatformId == place.PlatformId && l.ArchivedAt == null && !l.Product.IsIdea)
            .OrderBy(l => l.Id)
            .Select(l => new OwnListing(l.Id, l.ProductId, l.Product.Name, l.Copy, l.LeadKey))
            .ToListAsync(stop);
        return (platform.Profile, listings);
    }

    // What was found last of each term that was checked, by listing and term. Most terms are in the last check, so the ones before it are
    // read only for the listings that still lack some.
    private async Task<Dictionary<(int Listing, string Key), LastFind>> LastFinds(
        string marketId,
        CancellationToken stop,
        string? onlyKey = null
    )
    {
        var terms = await db
            .FollowedTerms.AsNoTracking()
            .Where(t => t.MarketId == marketId && (onlyKey == null || t.Key == onlyKey))
            .ToDictionaryAsync(t => t.Id, stop);
        var lacking = terms.Values.GroupBy(t => t.ListingId).ToDictionary(g => g.Key, g => g.Select(t => t.Id).ToHashSet());
        var checks = (
            await db
                .Checks.AsNoTracking()
                .Where(c => c.MarketId == marketId && c.State == CheckState.Finished)
                .Select(c => new
                {
                    c.Id,
                    c.ListingId,
                    c.Day,
                })
                .ToListAsync(stop)
        ).GroupBy(c => c.ListingId).Select(g => g.OrderByDescending(c => c.Day).ThenByDescending(c => c.Id).Take(FoundTerms.LastChecks).ToList()).ToList();
        var finds = new Dictionary<(int, string), LastFind>();
        for (var before = 0; before < FoundTerms.LastChecks; before++)
        {
            var next = checks
                .Where(of => of.Count > before && lacking.GetValueOrDefault(of[0].ListingId) is { Count: > 0 })
                .ToDictionary(of => of[before].Id, of => of[before].Day);
            if (next.Count == 0)
                break;
            foreach (var ids in next.Keys.Chunk(400))
            foreach (var find in await db.Finds.AsNoTracking().Where(f => ids.Contains(f.CheckId) && f.IsDone).ToListAsync(stop))
                if (terms.TryGetValue(find.TermId, out var term) && lacking[term.ListingId].Remove(term.Id))
                    finds[(term.ListingId, term.Key)] = new(find.Found, find.Rank, next[find.CheckId]);
        }

        return finds;
    }
}
