using TinRabbit.Core.Watching;

namespace TinRabbit.Server.Features.Watch;

/// <summary>What happened to a listing's ranks after a change, and the verdict as a sentence.</summary>
/// <param name="From">The first day with a check that was compared; null without any.</param>
/// <param name="To">The last one.</param>
public sealed record RankEffectView(RankEffect Effect, DateOnly? From, DateOnly? To, string Says);
