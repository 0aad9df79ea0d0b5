using TinRabbit.Core.Comparing;
using TinRabbit.Server.Journal;

namespace TinRabbit.Server.Features.Watch;

/// <summary>What the changes of one kind did on average.</summary>
/// <param name="Count">Changes of this kind that could be compared.</param>
/// <param name="Together">How many of them changed something else, too.</param>
/// <param name="Says">The answer as a sentence.</param>
public sealed record PooledView(
    NoteKind Kind,
    int Count,
    int Together,
    double? Difference,
    double? Low,
    double? High,
    Verdict Verdict,
    string Says
);
