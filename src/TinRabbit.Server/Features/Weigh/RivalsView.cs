namespace TinRabbit.Server.Features.Weigh;

/// <summary>A listing among its rivals.</summary>
/// <param name="Grip">The listing's own, 0–100.</param>
/// <param name="Reach">The listing's own, 0–100.</param>
/// <param name="Rank">Its place by grip, from 1.</param>
/// <param name="NextAbove">The next rival above; null where it is first.</param>
/// <param name="Gap">The grip that it lacks to that rival.</param>
/// <param name="Rivals">The firmest grip first.</param>
public sealed record RivalsView(
    double Grip,
    double Reach,
    int Rank,
    int? NextAbove,
    double? Gap,
    IReadOnlyList<RivalView> Rivals,
    IReadOnlyList<HeldTerm> Terms
);
