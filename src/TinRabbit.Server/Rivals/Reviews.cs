namespace TinRabbit.Server.Rivals;

/// <summary>Adds reviews to a listing: those that it has not.</summary>
internal static class Reviews
{
    /// <summary>Adds them; the same file once more adds nothing. Two with one text are two where they have other days, stars or authors.</summary>
    /// <param name="db">The database.</param>
    /// <param name="listingId">The shop's listing that they are of, or that is compared.</param>
    /// <param name="ofRivals">Whether they are of rivals.</param>
    /// <param name="rivalId">The rival, where it is known.</param>
    /// <param name="given">The reviews.</param>
    /// <param name="source">Where they came from, as it is shown.</param>
    /// <param name="stop">Stops waiting; nothing is added then.</param>
    /// <returns>What was added, saved.</returns>
    /// <exception cref="InvalidInputException">There would be too many.</exception>
    public static async Task<IReadOnlyList<ReviewRow>> Add(
        TinContext db,
        int listingId,
        bool ofRivals,
        int? rivalId,
        IEnumerable<GivenReview> given,
        string source,
        CancellationToken stop
    )
    {
        var there = await db.Reviews.Where(r => r.ListingId == listingId && r.OfRivals == ofRivals).ToListAsync(stop);
        var known = there.Select(r => (r.RivalId ?? rivalId, r.Text, r.Stars, r.At, r.Author)).ToHashSet();
        // Within one file, the same line twice is two reviews only where something tells them apart.
        List<ReviewRow> added =
        [
            .. given
                .Where(r => known.Add((rivalId, r.Text, r.Stars, r.At, r.Author)))
                .Select(r => new ReviewRow
                {
                    ListingId = listingId,
                    OfRivals = ofRivals,
                    RivalId = rivalId,
                    Text = r.Text,
                    Stars = r.Stars,
                    At = r.At,
                    Author = r.Author,
                    Source = source,
                }),
        ];
        if (there.Count + added.Count is > Bounds.Reviews and var all)
            throw new InvalidInputException([
                new(
                    "file",
                    $"There would be {all:#,0} reviews of {(ofRivals ? "rivals" : "this listing")}; the limit is {Bounds.Reviews:#,0}."
                ),
            ]);
        db.Reviews.AddRange(added);
        await db.SaveChangesAsync(stop);
        return added;
    }
}
