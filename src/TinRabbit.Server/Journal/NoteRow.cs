namespace TinRabbit.Server.Journal;

/// <summary>A change note: what was changed, and when.</summary>
public sealed class NoteRow : IDeletable
{
    public DateTime? DeletedAt { get; set; }

    public int Id { get; set; }

    /// <summary>What it is about; all null for the whole shop.</summary>
    public int? ProductId { get; set; }
    public int? ListingId { get; set; }

    /// <summary>Null for every market.</summary>
    public string? MarketId { get; set; }

    /// <summary>A term's key; null where it is about no term.</summary>
    public string? TermKey { get; set; }

    /// <summary>When the change was made, in the market's time.</summary>
    public DateTime At { get; set; }

    /// <summary>When shoppers' searches know of it: after the index delay.</summary>
    public DateTime CountsFrom { get; set; }
    public List<NoteKind> Kinds { get; set; } = [];
    public string Text { get; set; } = "";

    /// <summary>The <see cref="SentRow"/> that made it; null for one that the seller wrote.</summary>
    public int? SentId { get; set; }

    /// <summary>Counts the saves, so that two windows notice each other.</summary>
    public int Revision { get; set; }
}
