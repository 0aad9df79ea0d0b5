namespace TinRabbit.Server.Shelf;

/// <summary>A term that was deleted, with all that is needed to bring it back.</summary>
public sealed record DeletedTerm(string Text, string Key, int? ReadingId, List<ReadingRow> Readings);
