namespace TinRabbit.Server.Features.Weigh;

/// <summary>How one listing holds a pick.</summary>
/// <param name="Rival">The rival's ID; 0 for the shop's own listing.</param>
/// <param name="Grip">0–1.</param>
/// <param name="Field">The label of the field that holds it most firmly; null where several hold it together.</param>
public sealed record HolderView(int Rival, Grade Grade, double Grip, string? Field);
