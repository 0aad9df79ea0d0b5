using TinRabbit.Core.Words;

namespace TinRabbit.Core.Platforms;

/// <summary>How a platform's search compares words.</summary>
/// <param name="Folds">The ways in which two different words are the same.</param>
/// <param name="IgnoredWords">Words dropped from a query.</param>
/// <param name="WordsCombine">Whether a query's words may stand in different fields.</param>
/// <param name="IndexDelayHours">Hours until its index notices a change.</param>
public sealed record SearchRules(Folds Folds, IReadOnlyList<string> IgnoredWords, bool WordsCombine, double IndexDelayHours);
