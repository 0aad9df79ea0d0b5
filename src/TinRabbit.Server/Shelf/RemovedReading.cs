namespace TinRabbit.Server.Shelf;

/// <summary>A reading that was taken back, with all that is needed to put it back.</summary>
/// <param name="Key">The term's key.</param>
public sealed record RemovedReading(string Key, ReadingRow Reading);
