namespace TinRabbit.Server.Features.Pages;

/// <summary>A picture by its product and its place there.</summary>
public sealed record PictureRef(int ProductId, int Number);
