namespace TinRabbit.Server.Shelf;

/// <summary>A search term on a market's shelf.</summary>
public sealed class TermRow : IWeighed
{
    public int Id { get; set; }
    public required string MarketId { get; set; }

    /// <summary>As shoppers type it.</summary>
    public required string Text { get; set; }

    /// <summary>Its words: two spellings with the same key are one term.</summary>
    public required string Key { get; set; }

    /// <summary>The reading that counts; null where nothing was measured.</summary>
    public int? ReadingId { get; set; }
    public ReadingRow? Reading { get; set; }
}
