using TinRabbit.Server.Picks;

namespace TinRabbit.Server.Features.Weigh;

/// <summary>The moves that bring a listing past a rival, each the best at its time.</summary>
/// <param name="RivalGrip">The grip to pass.</param>
/// <param name="Grip">The grip after all moves.</param>
/// <param name="Fields">The listing's fields after all moves.</param>
public sealed record PassView(double RivalGrip, double Grip, bool Passes, IReadOnlyList<MoveView> Moves, JsonObject Fields);
