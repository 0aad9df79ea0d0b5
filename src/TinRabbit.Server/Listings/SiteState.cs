namespace TinRabbit.Server.Listings;

/// <summary>The web shop's settings before a change.</summary>
public sealed record SiteState(string Brand, string Address, string Language, string Country, string TitleSuffix) : IUndoStep
{
    /// <summary>Whether they were set up.</summary>
    public bool WasThere { get; init; } = true;

    public static SiteState Of(SiteRow site) =>
        new(site.Brand, site.Address, site.Language, site.Country, site.TitleSuffix) { WasThere = site.Id > 0 };

    /// <summary>Sets them; the revision moves on.</summary>
    public void ApplyTo(SiteRow site)
    {
        (site.Brand, site.Address, site.Language) = (Brand, Address, Language);
        (site.Country, site.TitleSuffix, site.Revision) = (Country, TitleSuffix, site.Revision + 1);
    }

    public async Task<IReadOnlyList<IUndoStep>> Undo(UndoContext undo, CancellationToken stop)
    {
        var site = await undo.Db.Site(stop);
        var now = Of(site);
        if (!WasThere)
            undo.Db.Sites.Remove(site);
        else
        {
            if (site.Id == 0)
                undo.Db.Sites.Add(site);
            ApplyTo(site);
        }

        return [now];
    }
}
