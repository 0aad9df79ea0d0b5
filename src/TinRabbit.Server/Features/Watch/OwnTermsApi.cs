using TinRabbit.Server.Hosting;

namespace TinRabbit.Server.Features.Watch;

/// <summary>The terms of the shop's listings in one market.</summary>
/// <param name="Listings">How many listings the shop has there.</param>
public sealed record OwnTermsView(int Listings, IReadOnlyList<OwnTerm> Terms);

/// <summary>A term that listings of the shop pick.</summary>
/// <param name="Volume">Searches/mo; null when unknown.</param>
/// <param name="Picked">Listings that pick it and use it.</param>
/// <param name="Held">Those of them that hold it.</param>
/// <param name="Leads">Those whose lead it is.</param>
/// <param name="Checked">Those that were checked for it last.</param>
/// <param name="Found">Those of them that were found.</param>
/// <param name="BestRank">The rank of the one that comes first; null where none is known.</param>
public sealed record OwnTerm(string Key, string Text, long? Volume, int Picked, int Held, int Leads, int Checked, int Found, int? BestRank);

/// <summary>A term in the listings of the shop.</summary>
public sealed record TermInShop(string Text, string Key, IReadOnlyList<ListingWithTerm> Listings);

/// <summary>A listing that has to do with a term.</summary>
/// <param name="Home">Where its product uses the pick; null where it is none.</param>
/// <param name="IsLead">Whether it is the listing's lead.</param>
/// <param name="Holds">How the listing holds it.</param>
/// <param name="Fields">The labels of the fields that hold it.</param>
/// <param name="Found">Whether it was found at the last check; null where it was not checked for this.</param>
/// <param name="Rank">Its rank then; null where that is unknown.</param>
/// <param name="CheckedOn">The day of that check.</param>
public sealed record ListingWithTerm(
    int ListingId,
    int ProductId,
    string Product,
    Home? Home,
    bool IsLead,
    Grade Holds,
    IReadOnlyList<string> Fields,
    bool? Found,
    int? Rank,
    DateOnly? CheckedOn
);

internal static class OwnTermsApi
{
    public static void MapOwnTerms(this IEndpointRouteBuilder app)
    {
        var api = app.MapGroup("/api/markets/{marketId}/ownterms");
        api.MapGet("/", GetOwnTerms).WithRequestTimeout(ProblemAnswers.Computes);
        api.MapGet("/listings", GetListingsWithTerm).WithRequestTimeout(ProblemAnswers.Computes);
    }

    private static async Task<OwnTermsView> GetOwnTerms(string marketId, OwnTerms own, CancellationToken stop) =>
        await own.Of(marketId, stop);

    private static async Task<TermInShop> GetListingsWithTerm(
        string marketId,
        [MaxLength(Bounds.TermLength)] string term,
        OwnTerms own,
        CancellationToken stop
    ) => await own.Across(marketId, term, stop);
}
