namespace TinRabbit.Core.Pages;

/// <summary>A published page and the terms of the shop that it holds.</summary>
/// <param name="Id">The page; an older one has a lower number.</param>
/// <param name="Kind">What it is for.</param>
/// <param name="LeadKey">The key of its lead; null where none is chosen.</param>
/// <param name="Held">Terms with a grip above 0.</param>
public sealed record PageHolding(int Id, PageKind Kind, string? LeadKey, IReadOnlyList<HeldTerm> Held);
