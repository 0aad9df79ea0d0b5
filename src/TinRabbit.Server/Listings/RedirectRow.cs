namespace TinRabbit.Server.Listings;

/// <summary>A slug that a page had when it was published, and that leads to its present one.</summary>
public sealed class RedirectRow
{
    public int Id { get; set; }
    public required string From { get; set; }
    public int PageId { get; set; }
}
