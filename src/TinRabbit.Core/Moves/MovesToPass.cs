namespace TinRabbit.Core.Moves;

/// <summary>Moves one after another until a listing passes a rival's grip: each the best at its time. It is a greedy answer, not a proof that fewer would not do.</summary>
/// <param name="Moves">In order; what each gains is after those before it.</param>
/// <param name="Grip">The grip after all of them, 0–100.</param>
/// <param name="Passes">Whether that is more than the rival's.</param>
public sealed record MovesToPass(IReadOnlyList<Move> Moves, double Grip, bool Passes)
{
    /// <summary>The most moves that are tried.</summary>
    public const int MostMoves = 12;

    /// <param name="input">The listing.</param>
    /// <param name="rivalGrip">The grip to pass, 0–100, on the same picks.</param>
    /// <param name="stop">Stops the search.</param>
    public static MovesToPass Of(MovesInput input, double rivalGrip, CancellationToken stop = default)
    {
        var moves = new List<Move>();
        var grip = Measures.Weigher.Weigh(input.Platform, input.Copy, input.Terms, stop).Grip;
        while (grip <= rivalGrip && moves.Count < MostMoves)
        {
            if (MoveSearch.Of(input with { Most = 1 }, stop).Moves is not [{ Gain: > 0 } best, ..])
                break;
            moves.Add(best);
            input = input.After(best);
            grip += best.Gain;
        }

        return new(moves, grip, grip > rivalGrip);
    }
}
