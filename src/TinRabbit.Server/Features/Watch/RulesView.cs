namespace TinRabbit.Server.Features.Watch;

/// <summary>What the checks of a listing say about the platform's profile.</summary>
/// <param name="Checked">Terms that the profile can be compared on: the index had noticed what was sent.</param>
/// <param name="Surprises">Terms found although a word is missing, or not found although every word is there.</param>
/// <param name="Change">The single change of the profile that would explain most of them; null where none would.</param>
/// <param name="Count">Found terms whose rank is known.</param>
/// <param name="Rho">Spearman's rank correlation of grip and rank, 1 where more grip always means a better rank; null with too few.</param>
/// <param name="Low">The lower end of its 95 % interval.</param>
/// <param name="High">Its upper end.</param>
/// <param name="Least">The fewest terms that anything is said of.</param>
public sealed record RulesView(
    int Checked,
    IReadOnlyList<Surprise> Surprises,
    OfferedChange? Change,
    int Count,
    double? Rho,
    double? Low,
    double? High,
    int Least,
    IReadOnlyList<RankedTerm> Ranked
);
