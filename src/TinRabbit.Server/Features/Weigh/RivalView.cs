using TinRabbit.Server.Rivals;

namespace TinRabbit.Server.Features.Weigh;

/// <summary>A rival, weighed for the product's picks.</summary>
/// <param name="IsFromMarket">Whether it can be looked up again.</param>
/// <param name="Seen">The labels of the searched fields that are known of it.</param>
/// <param name="OnlyTheirs">Keys of the picks that it holds and the listing does not, the most worth first.</param>
/// <param name="OnlyMine">Keys of the picks that the listing holds and it does not.</param>
/// <param name="Changes">What changed since it was saved.</param>
public sealed record RivalView(
    int Id,
    string Title,
    string Source,
    bool IsFromMarket,
    DateTime SavedAt,
    DateTime SeenAt,
    double Grip,
    double Reach,
    RivalState State,
    JsonObject Fields,
    IReadOnlyList<string> Seen,
    IReadOnlyList<string> OnlyTheirs,
    IReadOnlyList<string> OnlyMine,
    IReadOnlyList<RivalChange> Changes
);
