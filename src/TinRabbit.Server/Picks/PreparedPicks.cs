namespace TinRabbit.Server.Picks;

/// <summary>The picks of a product that are worked on, with their numbers in one market, made ready for a platform.</summary>
/// <param name="Keys">Each pick's key.</param>
/// <param name="Wanted">Each as the engine takes it, with the number that it counts for.</param>
/// <param name="Terms">Their words, looked up in the platform's folds.</param>
/// <param name="Avoided">What the shop avoids, whichever product it was avoided for.</param>
/// <param name="OwnWords">Words whose claims the seller has corrected or added, by their keys.</param>
/// <param name="AvoidedTerms">The same, to be looked for in every field.</param>
public sealed record PreparedPicks(
    IReadOnlyList<string> Keys,
    IReadOnlyList<WantedTerm> Wanted,
    TermSet Terms,
    IReadOnlyList<Avoided> Avoided,
    IReadOnlyDictionary<string, Core.Words.Facet?> OwnWords,
    AvoidedTerms AvoidedTerms
)
{
    /// <summary>The platform they are ready for.</summary>
    public Platform Platform => Terms.Platform;
}
