namespace TinRabbit.Server.Shelf;

/// <summary>A reading that a change added.</summary>
/// <param name="Key">The term's key.</param>
/// <param name="ReadingId">The reading.</param>
/// <param name="BeforeId">The reading that counted before; null where there was none.</param>
public sealed record AddedReading(string Key, int ReadingId, int? BeforeId);
