namespace TinRabbit.Server.Shelf;

/// <summary>A reading that a change added.</summary>
/// <param name="Key">The term's key.</param>
/// <param name="Reading">The reading; in what is stored to remove it, only its number counts.</param>
/// <param name="BeforeId">The reading that counted before; null where there was none.</param>
public sealed record AddedReading(string Key, ReadingRow Reading, int? BeforeId);
