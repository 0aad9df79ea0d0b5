using TinRabbit.Server.Shelf;

namespace TinRabbit.Server.Features.Write;

/// <summary>Terms by their competition against the market's shelf.</summary>
public sealed record CompetitionMix(int Low, int Medium, int High, int Unknown)
{
    internal static CompetitionMix Of(IReadOnlyCollection<ReadTerm> terms) =>
        new(
            terms.Count(t => t.Band == Band.Low),
            terms.Count(t => t.Band == Band.Medium),
            terms.Count(t => t.Band == Band.High),
            terms.Count(t => t.Band is null)
        );
}
