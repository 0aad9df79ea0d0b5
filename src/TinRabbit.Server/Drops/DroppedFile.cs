namespace TinRabbit.Server.Drops;

/// <summary>A file that somebody dropped or pasted, or one that was in it.</summary>
/// <param name="Id">Names it in the requests that follow.</param>
/// <param name="Name">Its name, with the folders that it was in.</param>
/// <param name="IsPicture">Whether it is a picture of a page: it is nothing by itself.</param>
public sealed record DroppedFile(string Id, string Name, bool IsPicture);
