namespace TinRabbit.Server.Rivals;

/// <summary>The rivals that a listing is compared with.</summary>
internal static class SavedRivals
{
    /// <summary>A rival as it is stored.</summary>
    /// <param name="listingId">The listing that it is compared with.</param>
    /// <param name="marketId">Where it is sold.</param>
    /// <param name="marketListing">Its id there; null where the market does not know it.</param>
    /// <param name="source">Where it came from, as it is shown.</param>
    /// <param name="state">How it is.</param>
    /// <param name="savedAt">When it is saved.</param>
    /// <param name="seenAt">When it was like this.</param>
    public static RivalRow Row(
        int listingId,
        string marketId,
        string? marketListing,
        string source,
        RivalState state,
        DateTime savedAt,
        DateTime seenAt
    ) =>
        new()
        {
            ListingId = listingId,
            MarketId = marketId,
            MarketListing = marketListing,
            Source = source,
            SavedAt = savedAt,
            SeenAt = seenAt,
            First = state,
            Latest = state,
        };

    /// <summary>Adds rivals of one listing, and saves.</summary>
    /// <exception cref="InvalidInputException">It would have too many.</exception>
    public static async Task Add(TinContext db, int listingId, IReadOnlyList<RivalRow> rivals, CancellationToken stop)
    {
        if (await db.Rivals.CountAsync(r => r.ListingId == listingId, stop) + rivals.Count is > Bounds.Rivals and var all)
            throw new InvalidInputException([new("ids", $"The listing would have {all:#,0} rivals; the limit is {Bounds.Rivals}.")]);
        db.Rivals.AddRange(rivals);
        await db.SaveChangesAsync(stop);
    }
}
