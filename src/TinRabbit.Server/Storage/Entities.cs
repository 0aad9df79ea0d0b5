using System.ComponentModel.DataAnnotations;
using System.Text.Json.Serialization;
using TinRabbit.Core;
using TinRabbit.Core.Measures;
using TinRabbit.Core.Words;

namespace TinRabbit.Server.Storage;

/// <summary>A seller's workspace.</summary>
public sealed class ShopRow
{
    public int Id { get; set; }
    public required string Name { get; set; }

    /// <summary>ISO 4217 code: what prices are in on the seller's own platforms.</summary>
    public string Currency { get; set; } = "USD";
    public List<ProductRow> Products { get; } = [];
}

/// <summary>Something that can be deleted and restored: deleting only sets the time, which every query leaves out.</summary>
public interface IDeletable
{
    /// <summary>When it was deleted, with whatever was deleted in the same moment; null while it is there.</summary>
    DateTime? DeletedAt { get; set; }
}

/// <summary>The thing sold.</summary>
public sealed class ProductRow : IDeletable
{
    public DateTime? DeletedAt { get; set; }

    public int Id { get; set; }
    public int ShopId { get; set; }
    public required string Name { get; set; }
    public Facts Facts { get; set; } = new();

    /// <summary>Counts the changes to name and facts, so that two windows notice each other.</summary>
    public int Revision { get; set; }

    /// <summary>The same for the alt texts.</summary>
    public int PicturesRevision { get; set; }
    public List<PictureRow> Pictures { get; } = [];
    public List<ListingRow> Listings { get; } = [];
    public List<PickRow> Picks { get; } = [];
}

/// <summary>True statements about a product.</summary>
public sealed record Facts
{
    /// <summary>What it is, as a shopper would say it.</summary>
    [MaxLength(Bounds.TermLength)]
    public string What { get; init; } = "";

    [MaxLength(Bounds.Facts), EachMaxLength(Bounds.NameLength)]
    public IReadOnlyList<string> Materials { get; init; } = [];

    [MaxLength(Bounds.Facts), EachMaxLength(Bounds.NameLength)]
    public IReadOnlyList<string> Colours { get; init; } = [];

    [MaxLength(Bounds.Facts), EachMaxLength(Bounds.NameLength)]
    public IReadOnlyList<string> Sizes { get; init; } = [];

    [MaxLength(Bounds.Facts), EachMaxLength(Bounds.NameLength)]
    public IReadOnlyList<string> Audiences { get; init; } = [];

    [MaxLength(Bounds.Facts), EachMaxLength(Bounds.NameLength)]
    public IReadOnlyList<string> Occasions { get; init; } = [];

    /// <summary>The same, as the facts guard takes them.</summary>
    [JsonIgnore]
    public FactWords Words => new(What, new Dictionary<Facet, IReadOnlyList<string>>
    {
        [Facet.Material] = Materials,
        [Facet.Colour] = Colours,
        [Facet.Size] = Sizes,
        [Facet.Audience] = Audiences,
        [Facet.Occasion] = Occasions,
    });
}

/// <summary>A picture of a product: what is to be seen in it.</summary>
public sealed class PictureRow
{
    public int Id { get; set; }
    public int ProductId { get; set; }
    public int Order { get; set; }
    public required string Description { get; set; }
}

/// <summary>A platform's profile in its open format.</summary>
public sealed class PlatformRow : IDeletable
{
    public DateTime? DeletedAt { get; set; }

    public required string Id { get; set; }
    public required string Profile { get; set; }

    /// <summary>Counts the changes, so that two windows notice each other.</summary>
    public int Revision { get; set; }

    /// <summary>The shipped platform of whose kind a seller's own is; null for a shipped one.</summary>
    public string? Like { get; set; }
}

/// <summary>One product on one platform.</summary>
public sealed class ListingRow : IDeletable
{
    public DateTime? DeletedAt { get; set; }

    public int Id { get; set; }
    public int ProductId { get; set; }
    public ProductRow Product { get; set; } = null!;
    public required string PlatformId { get; set; }
    public PlatformRow Platform { get; set; } = null!;

    /// <summary>Its fields as JSON: a text, a list or an object each.</summary>
    public string Copy { get; set; } = "{}";

    /// <summary>Counts the saves, so that two windows notice each other.</summary>
    public int Revision { get; set; }

    /// <summary>The key of the pick it is built around.</summary>
    public string? LeadKey { get; set; }
    public DateTime SavedAt { get; set; }
    public List<VersionRow> Versions { get; } = [];
}

/// <summary>A state of a listing worth returning to.</summary>
public sealed class VersionRow : IDeletable
{
    public DateTime? DeletedAt { get; set; }

    public int Id { get; set; }
    public int ListingId { get; set; }
    public DateTime At { get; set; }
    public required string Copy { get; set; }

    /// <summary>Why it was kept, as words that follow "Kept": after a pause, before a fill, when sent.</summary>
    public string Why { get; set; } = "";

    /// <summary>The name that the seller gave it; empty where none.</summary>
    public string Name { get; set; } = "";
}

/// <summary>One version of a title.</summary>
public sealed class TakeRow : IDeletable
{
    public DateTime? DeletedAt { get; set; }

    public int Id { get; set; }
    public int ListingId { get; set; }
    public DateTime At { get; set; }
    public required string Text { get; set; }

    /// <summary>The name that the seller gave it; empty where none.</summary>
    public string Name { get; set; } = "";
}

/// <summary>A finding that the seller dismissed.</summary>
public sealed class AsideRow
{
    public int Id { get; set; }
    public int ListingId { get; set; }

    /// <summary>The finding's key: it names the text it is about.</summary>
    public required string Key { get; set; }
    public DateTime At { get; set; }
}

/// <summary>A listing as it was sent to a market, or as the seller marked it as published.</summary>
public sealed class SentRow
{
    public int Id { get; set; }
    public int ListingId { get; set; }
    public required string MarketId { get; set; }
    public DateTime At { get; set; }

    /// <summary>When the market's index notices it.</summary>
    public DateTime NoticedAt { get; set; }

    /// <summary>Whether the seller published it elsewhere, so that no market received it.</summary>
    public bool ByHand { get; set; }
    public required string Copy { get; set; }
}

/// <summary>What is typical of a market's shelf, kept beside it.</summary>
public sealed class MarketRow
{
    public required string Id { get; set; }
    public Norm Norm { get; set; } = Norm.Unknown;
}

/// <summary>A search term on a market's shelf.</summary>
public sealed class TermRow
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

/// <summary>One measurement of a term.</summary>
public sealed class ReadingRow
{
    public int Id { get; set; }
    public int TermId { get; set; }
    public long? Volume { get; set; }
    public long? Competition { get; set; }
    public long? TitlesHolding { get; set; }
    public decimal? ClickCost { get; set; }

    /// <summary>Searches by month, oldest first.</summary>
    public IReadOnlyList<int>? Months { get; set; }
    public DateOnly? From { get; set; }
    public required string Source { get; set; }
    public DateTime TakenAt { get; set; }
}

/// <summary>Where to use a pick.</summary>
public enum Home
{
    /// <summary>Not decided.</summary>
    Anywhere,
    Title,
    Tags,
    Bullets,
    Backend,
    Body,

    /// <summary>Parked: not worked on now.</summary>
    Later,

    /// <summary>Never to be used.</summary>
    Avoid,
}

/// <summary>A term kept for a product.</summary>
public sealed class PickRow : IDeletable
{
    public DateTime? DeletedAt { get; set; }

    public int Id { get; set; }
    public int ProductId { get; set; }
    public required string Text { get; set; }
    public required string Key { get; set; }
    public Fit Fit { get; set; }
    public Home Home { get; set; }
    public string Note { get; set; } = "";

    /// <summary>The head term it was found under.</summary>
    public string Source { get; set; } = "";

    /// <summary>Who says that it is worth having: typed by shoppers, used by sellers, a file.</summary>
    public string SaidBy { get; set; } = "";

    /// <summary>BCP 47 tag of a second language that it is kept for; empty for the listing's own.</summary>
    public string Language { get; set; } = "";
    public int Order { get; set; }

    /// <summary>Counts the changes to the note, so that two windows notice each other.</summary>
    public int NoteRevision { get; set; }
}

/// <summary>A change that can be undone.</summary>
public sealed class ChangeRow
{
    public int Id { get; set; }

    /// <summary>The product that it is about; null for the shop as a whole.</summary>
    public int? ProductId { get; set; }

    /// <summary>What was done, as a sentence without a full stop: Picked “bird house”.</summary>
    public required string What { get; set; }

    /// <summary>The picks it touched as they were, by key; null for one that was not there.</summary>
    public Dictionary<string, PickState?> Before { get; set; } = [];

    /// <summary>The product's facts as they were; null where the change was not to them.</summary>
    public Facts? FactsBefore { get; set; }

    /// <summary>What takes any other change back; null where it was to picks or facts.</summary>
    public Reversal? Reversal { get; set; }
    public DateTime At { get; set; }
}

/// <summary>How to take a change back.</summary>
/// <param name="Kind">What to do.</param>
/// <param name="Entity">What kind of thing it was done to.</param>
/// <param name="Id">Its number, or a platform's or market's id.</param>
/// <param name="Before">The name or the state that it had; for deleted terms, the terms.</param>
/// <param name="At">For <see cref="ReversalKind.Restore"/>: everything deleted at this time comes back.</param>
public sealed record Reversal(ReversalKind Kind, Entity Entity, string Id, string Before = "", DateTime? At = null);

/// <summary>What takes a change back.</summary>
public enum ReversalKind
{
    /// <summary>What was deleted comes back.</summary>
    Restore,

    /// <summary>What was added is deleted.</summary>
    Delete,

    /// <summary>What was renamed gets its name back.</summary>
    Rename,
}

/// <summary>What a change can be about, besides picks.</summary>
public enum Entity
{
    Shop,
    Product,
    Listing,
    Platform,
    Term,
    Import,
    Step,
    Take,
    Version,
    Filter,
}

/// <summary>A pick's values at one time.</summary>
public sealed record PickState(string Text, Fit Fit, Home Home, string Note, string Source, int Order)
{
    public string SaidBy { get; init; } = "";
    public string Language { get; init; } = "";
}

/// <summary>A shelf's filters under a name.</summary>
public sealed class FilterRow : IDeletable
{
    public DateTime? DeletedAt { get; set; }

    public int Id { get; set; }
    public required string Name { get; set; }

    /// <summary>The filters as the address bar has them.</summary>
    public required string Filters { get; set; }
}

/// <summary>One step of a product's trail.</summary>
public sealed class DigRow : IDeletable
{
    public DateTime? DeletedAt { get; set; }

    public int Id { get; set; }
    public int ProductId { get; set; }
    public required string MarketId { get; set; }
    public required string Text { get; set; }
    public required string Key { get; set; }

    /// <summary>The step it was clicked in; null where it was typed.</summary>
    public int? ParentId { get; set; }
    public DateTime At { get; set; }
}

/// <summary>
/// An import that has begun. It is written in portions, so that saves get in between; until <see cref="Done"/> is set, everything it
/// wrote is removed again when it is stopped, and at the next start after a crash.
/// </summary>
public sealed class ImportRow
{
    public int Id { get; set; }
    public required string MarketId { get; set; }
    public required string Source { get; set; }
    public DateTime At { get; set; }
    public bool Done { get; set; }

    /// <summary>Ids of the terms that are new with it: from the first, as many as <see cref="Rows"/>.</summary>
    public long FirstTerm { get; set; }

    /// <summary>Ids of its readings: from the first, as many as <see cref="Rows"/>.</summary>
    public long FirstReading { get; set; }
    public long Rows { get; set; }
}

/// <summary>A known term to which an import gave another reading, and the reading that counted before.</summary>
public sealed class ImportChangeRow
{
    public int ImportId { get; set; }
    public int TermId { get; set; }
    public int? ReadingId { get; set; }
}
