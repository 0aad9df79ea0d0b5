using TinRabbit.Core.Measures;
using TinRabbit.Core.Platforms;
using TinRabbit.Core.Words;

namespace TinRabbit.Core.Moves;

/// <summary>A listing whose moves are looked for.</summary>
/// <param name="Platform">Its limits and folds.</param>
/// <param name="Copy">The listing's fields.</param>
/// <param name="Terms">The picks.</param>
/// <param name="Avoid">Terms that must not be said; picks that contain one are not used.</param>
public sealed record MovesInput(
    Platform Platform,
    IReadOnlyDictionary<string, FieldValue> Copy,
    IReadOnlyList<WantedTerm> Terms,
    IReadOnlyList<string> Avoid
)
{
    /// <summary>For how many slots moves are listed where nobody says.</summary>
    public const int UsualMost = 40;

    /// <summary>The picks, each with the number that it counts for.</summary>
    public IReadOnlyList<WantedTerm> Terms { get; init; } = PickDemand.Assume(Terms);

    /// <summary>The pick that the listing is built around: no move takes it out of the title. Null where none is chosen.</summary>
    public string? Lead { get; init; }

    /// <summary>What is true of the product: picks that claim more are not used. Null where nothing is known.</summary>
    public FactWords? Facts { get; init; }

    /// <summary>Keys of fields that no move changes.</summary>
    public IReadOnlySet<string> LeftAlone { get; init; } = new HashSet<string>();

    /// <summary>The picks that moves may be for, as they are written; null for all.</summary>
    public IReadOnlySet<string>? Only { get; init; }

    /// <summary>For how many slots moves are listed at most; 1 or more.</summary>
    public int Most { get; init; } = UsualMost;

    /// <summary>The same listing after a move.</summary>
    public MovesInput After(Move move) => this with { Copy = new Dictionary<string, FieldValue>(Copy) { [move.Field] = move.Value } };
}
