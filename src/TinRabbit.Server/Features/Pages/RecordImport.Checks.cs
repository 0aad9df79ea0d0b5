using TinRabbit.Server.Journal;
using static TinRabbit.Server.Features.Pages.RecordDifference;

namespace TinRabbit.Server.Features.Pages;

// Adds checks, and the terms that they look for.
internal sealed partial class RecordImport
{
    private async Task AddChecks(OfListing listing, CancellationToken stop)
    {
        var (row, isNew, given, there) = listing;
        var terms = await db
            .FollowedTerms.IgnoreQueryFilters()
            .Where(t => t.ListingId == row.Id)
            .ToDictionaryAsync(t => (t.MarketId, t.Key), stop);
        foreach (var followed in Lacking(given.Followed, there.Followed, Identity))
            if (Term(followed.Market, followed.Term, null) is { } term)
            {
                if (!isNew)
                    _added.Add(term);
                term.DeletedAt = null;
            }

        var checks = Lacking(given.Checks, there.Checks, Identity)
            .Select(c =>
                (
                    Given: c,
                    Row: Add(
                        new CheckRow
                        {
                            ListingId = row.Id,
                            MarketId = c.Market,
                            At = c.At,
                            Day = c.Day,
                            Source = c.Source,
                            IsDaily = c.IsDaily,
                            // It does not go on in another shop.
                            State = c.State == CheckState.Running ? CheckState.Stopped : c.State,
                            Problem = c.Problem,
                        },
                        isNew
                    ),
                    Finds: (c.Finds ?? [])
                        .Select(f => (Find: f, Term: Term(c.Market, f.Term, c.At)))
                        .Where(f => f.Term is not null)
                        .DistinctBy(f => f.Term)
                        .ToList()
                )
            )
            .ToList();
        await db.SaveChangesAsync(stop);
        foreach (var (_, check, finds) in checks)
            db.Finds.AddRange(
                finds.Select(f => new FindRow
                {
                    CheckId = check.Id,
                    TermId = f.Term!.Id,
                    IsDone = f.Find.IsDone,
                    Found = f.Find.Found,
                    Rank = f.Find.Rank,
                    Results = f.Find.Results,
                })
            );
        await db.SaveChangesAsync(stop);
        if (
            terms.Values.Where(t => t.DeletedAt is null).CountBy(t => t.MarketId).FirstOrDefault(m => m.Value > Bounds.FollowedTerms) is
            { Value: > 0 } m
        )
            throw Wrong($"“{row.Product.Name}” would have {m.Value:#,0} terms to check; the most is {Bounds.FollowedTerms:#,0}.");

        // A term that is only in old checks is one that is followed no more.
        FollowedTermRow? Term(string market, string text, DateTime? followedUntil)
        {
            if (Tokens.Key(text) is not { Length: > 0 } key)
                return null;
            if (!terms.TryGetValue((market, key), out var term))
                terms[(market, key)] = term = db
                    .FollowedTerms.Add(
                        new()
                        {
                            ListingId = row.Id,
                            MarketId = market,
                            Key = key,
                            Text = text,
                            DeletedAt = followedUntil,
                        }
                    )
                    .Entity;
            return term;
        }
    }
}
