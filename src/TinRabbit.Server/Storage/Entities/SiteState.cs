namespace TinRabbit.Server.Storage;

/// <summary>The web shop's settings before a change.</summary>
public sealed record SiteState(string Brand, string Address, string Language, string Country, string TitleSuffix)
{
    public static SiteState Of(SiteRow site) => new(site.Brand, site.Address, site.Language, site.Country, site.TitleSuffix);

    /// <summary>Sets them; the revision moves on.</summary>
    public void ApplyTo(SiteRow site)
    {
        (site.Brand, site.Address, site.Language) = (Brand, Address, Language);
        (site.Country, site.TitleSuffix, site.Revision) = (Country, TitleSuffix, site.Revision + 1);
    }
}
