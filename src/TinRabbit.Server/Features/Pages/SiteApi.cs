using TinRabbit.Server.Listings;

namespace TinRabbit.Server.Features.Pages;

/// <summary>The settings of the web shop.</summary>
/// <param name="MarketId">The web market that its numbers come from; null where the source of numbers has none for the country.</param>
/// <param name="Countries">The countries that there are web markets for.</param>
public sealed record SiteView(
    string PlatformId,
    string Brand,
    string Address,
    string Language,
    string Country,
    string TitleSuffix,
    int Revision,
    string? MarketId,
    IReadOnlyList<CountryChoice> Countries
);

/// <summary>A country with a web market.</summary>
public sealed record CountryChoice(string Country, string Name);

/// <summary>New settings of the web shop.</summary>
/// <param name="Revision">The <see cref="SiteView.Revision"/> that they were made from.</param>
public sealed record SiteRequest(
    [MaxLength(Bounds.NameLength)] string Brand,
    [MaxLength(Bounds.NoteLength)] string Address,
    [MaxLength(20)] string Language,
    [MaxLength(2)] string Country,
    [MaxLength(60)] string TitleSuffix,
    int Revision
);

internal static class SiteApi
{
    public static void MapSite(this IEndpointRouteBuilder app)
    {
        var api = app.MapGroup("/api/site");
        api.MapGet("/", GetSite);
        api.MapPut("/", SaveSite).RetriesRaces();
    }

    private static async Task<SiteView> GetSite(TinContext db, IMarket market, CancellationToken stop) => View(await db.Site(stop), market);

    private static async Task<Results<Ok<Changed>, Conflict<SiteView>>> SaveSite(
        SiteRequest request,
        TinContext db,
        IMarket market,
        ChangeLog changes,
        CancellationToken stop
    )
    {
        var site = await db.Site(stop);
        var before = SiteState.Of(site);
        var after = Read(request, before, market);
        var result = Versioned.Apply(site.Revision, request.Revision, site.Id > 0 && after == before, () => after.ApplyTo(site));
        if (result is SaveResult.Conflict)
            return TypedResults.Conflict(View(site, market));
        if (result is SaveResult.Unchanged)
            return TypedResults.Ok(new Changed(null, null, site.Revision));
        if (site.Id == 0)
            db.Sites.Add(site);
        var changed = await changes.Save(PageMessages.ChangedSite, new(Screen.Pages), [before], stop);
        return TypedResults.Ok(changed with { Revision = site.Revision });
    }

    private static SiteState Read(SiteRequest request, SiteState before, IMarket market)
    {
        var problems = new List<Problem>();
        var address = request.Address.Trim().TrimEnd('/');
        if (address.Length > 0 && !(Uri.TryCreate(address, UriKind.Absolute, out var uri) && uri.Scheme is "http" or "https"))
            problems.Add(new("address", "Enter the address with https://, such as https://myshop.example."));
        if (request.Language.Trim().Length == 0)
            problems.Add(new("language", "Enter a language code, such as en."));
        if (market.Places.All(p => p.PlatformId != MarketPlace.Web || p.Country != request.Country))
            problems.Add(new("country", $"There is no web market for “{request.Country}”."));
        return problems.Count > 0
            ? throw new InvalidInputException(problems)
            : before with
            {
                Brand = request.Brand.Trim(),
                Address = address,
                Language = request.Language.Trim(),
                Country = request.Country,
                TitleSuffix = request.TitleSuffix.TrimEnd(),
            };
    }

    private static SiteView View(SiteRow site, IMarket market)
    {
        var web = market.Places.Where(p => p.PlatformId == MarketPlace.Web).ToList();
        return new(
            site.PlatformId,
            site.Brand,
            site.Address,
            site.Language,
            site.Country,
            site.TitleSuffix,
            site.Revision,
            market.MarketOf(site)?.Id,
            [.. web.Select(p => new CountryChoice(p.Country, p.CountryName))]
        );
    }
}
