namespace TinRabbit.Server.Picks;

/// <summary>The leads of pages as they are typed.</summary>
internal static class PageLeads
{
    /// <summary>The text of each page's lead, by the page's number.</summary>
    public static async Task<IReadOnlyDictionary<int, string>> LeadsOf(
        this TinContext db,
        IEnumerable<(int Id, int ProductId, string? LeadKey)> pages,
        CancellationToken stop
    )
    {
        var leading = pages.Where(p => p.LeadKey is not null).ToList();
        var keys = leading.Select(p => p.LeadKey!).Distinct().ToList();
        var picks = await db
            .Picks.AsNoTracking()
            .Where(p => keys.Contains(p.Key))
            .Select(p => new
            {
                p.ProductId,
                p.Key,
                p.Text,
            })
            .ToListAsync(stop);
        var texts = picks.DistinctBy(p => (p.ProductId, p.Key)).ToDictionary(p => (p.ProductId, p.Key), p => p.Text);
        return leading.ToDictionary(p => p.Id, p => texts.GetValueOrDefault((p.ProductId, p.LeadKey!), p.LeadKey!));
    }
}
