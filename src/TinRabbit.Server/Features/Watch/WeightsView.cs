namespace TinRabbit.Server.Features.Watch;

/// <summary>Weights of the fields that order a market's results better.</summary>
/// <param name="Searches">Searches whose results could be compared.</param>
/// <param name="Least">The fewest that weights are fitted to.</param>
/// <param name="TauNow">How well grip orders the results now: Kendall's τ, −1 to 1; null with too few searches.</param>
/// <param name="Improvement">How much better, on searches that the weights were not fitted to; null with too few.</param>
/// <param name="Low">The lower end of its 95 % interval.</param>
/// <param name="High">Its upper end.</param>
/// <param name="Weights">By field; none where no other weights are better for sure.</param>
/// <param name="Change">The profile with these weights; null without any.</param>
public sealed record WeightsView(
    int Searches,
    int Least,
    double? TauNow,
    double? Improvement,
    double? Low,
    double? High,
    IReadOnlyList<OfferedWeight> Weights,
    OfferedChange? Change
);
