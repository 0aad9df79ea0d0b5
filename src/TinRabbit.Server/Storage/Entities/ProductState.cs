namespace TinRabbit.Server.Storage;

/// <summary>A product as it was before a change.</summary>
/// <param name="Facts">Its facts; null where they were not changed.</param>
/// <param name="Picks">The picks that were touched, by key; null for one that was not there.</param>
public sealed record ProductState(int Id, Facts? Facts, IReadOnlyDictionary<string, PickState?> Picks);
