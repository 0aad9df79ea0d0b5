using TinRabbit.Core.Matching;
using TinRabbit.Core.Measures;
using TinRabbit.Core.Platforms;

namespace TinRabbit.Server.Storage;

/// <summary>The picks of a product that are worked on, with their numbers in one market, made ready for a platform.</summary>
/// <param name="Keys">Each pick's key.</param>
/// <param name="Homes">Where the seller wants each to live.</param>
/// <param name="Wanted">Each as the engine takes it.</param>
/// <param name="Terms">Their words, looked up in the platform's folds.</param>
/// <param name="Avoided">What the shop avoids, whichever product it was avoided for.</param>
/// <param name="AvoidedTerms">The same, to be looked for in every field.</param>
public sealed record PreparedPicks(
    IReadOnlyList<string> Keys,
    IReadOnlyList<Home> Homes,
    WantedTerm[] Wanted,
    TermSet Terms,
    IReadOnlyList<Avoided> Avoided,
    AvoidedTerms AvoidedTerms
)
{
    /// <summary>The platform they are ready for.</summary>
    public Platform Platform => Terms.Platform;
}
