namespace TinRabbit.Server.Features.Watch;

/// <summary>The journal.</summary>
/// <param name="Notes">The newest first.</param>
/// <param name="All">How many there are that pass.</param>
/// <param name="Pooled">For each kind of change, what it did on average in this shop; none where it was not asked for.</param>
public sealed record JournalView(IReadOnlyList<NoteView> Notes, int All, IReadOnlyList<PooledView> Pooled);
