using TinRabbit.Core.Filling;

namespace TinRabbit.Core.Moves;

/// <summary>The moves of a listing.</summary>
/// <param name="Grip">The listing's grip as it is, 0–100.</param>
/// <param name="Reach">Its reach as it is, 0–100.</param>
/// <param name="Moves">The greatest gain first; among equals the one that changes fewer characters.</param>
/// <param name="LeftOut">Picks that no move may use in any field.</param>
public sealed record MoveList(double Grip, double Reach, IReadOnlyList<Move> Moves, IReadOnlyList<LeftOut> LeftOut);
