namespace TinRabbit.Server.Files.Documents;

/// <summary>How a listing is watched in a market.</summary>
/// <param name="PageSize">Results of one page of the market.</param>
/// <param name="CheckedOn">The day of the last daily check.</param>
/// <param name="FiguresUntil">The last day whose figures are there.</param>
public sealed record DocumentWatch(
    string Market,
    bool ChecksDaily,
    int PageSize,
    DateOnly? CheckedOn = null,
    DateOnly? FiguresUntil = null
);
