namespace TinRabbit.Server.Features.Weigh;

/// <summary>Who holds a pick.</summary>
/// <param name="Holders">The shop's own listing and rivals that hold it, the firmest first.</param>
public sealed record HeldTerm(string Key, IReadOnlyList<HolderView> Holders);
