namespace TinRabbit.Server.Shelf;

/// <summary>A term as some source gives it, with what that source says of it.</summary>
/// <param name="Text">As typed.</param>
/// <param name="Reading">Its reading, with source and date; null where nothing was measured.</param>
public sealed record Found(string Text, ReadingRow? Reading);
