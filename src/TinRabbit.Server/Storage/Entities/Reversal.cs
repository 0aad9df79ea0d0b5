namespace TinRabbit.Server.Storage;

/// <summary>How to take a change back.</summary>
/// <param name="Kind">What to do.</param>
/// <param name="Entity">What kind of thing it was done to.</param>
/// <param name="Id">Its number, or a platform's or market's id.</param>
/// <param name="Before">The name or the state that it had; for deleted terms, the terms.</param>
/// <param name="At">For <see cref="ReversalKind.Restore"/>: everything deleted at this time comes back.</param>
public sealed record Reversal(ReversalKind Kind, Entity Entity, string Id, string Before = "", DateTime? At = null);
