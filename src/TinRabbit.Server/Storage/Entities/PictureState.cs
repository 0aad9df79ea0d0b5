namespace TinRabbit.Server.Storage;

/// <summary>A product's pictures as they were before a change and after it.</summary>
public sealed record PictureState(int ProductId, IReadOnlyList<OnePicture> Before, IReadOnlyList<OnePicture> After);
