namespace TinRabbit.Server.Features.Watch;

/// <summary>The watched listings of the shop, those that moved most first.</summary>
/// <param name="Days">The days of each of the two periods that are compared.</param>
/// <param name="Until">The last day of the later one.</param>
public sealed record MoversView(int Days, DateOnly Until, IReadOnlyList<Mover> Listings);
