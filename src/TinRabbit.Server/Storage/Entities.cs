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
    public List<ProductRow> Products { get; } = [];
}

/// <summary>The thing sold.</summary>
public sealed class ProductRow
{
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
public sealed class PlatformRow
{
    public required string Id { get; set; }
    public required string Profile { get; set; }

    /// <summary>Counts the changes, so that two windows notice each other.</summary>
    public int Revision { get; set; }

    /// <summary>The shipped platform of whose kind a seller's own is; null for a shipped one.</summary>
    public string? Like { get; set; }
}

/// <summary>One product on one platform.</summary>
public sealed class ListingRow
{
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
public sealed class VersionRow
{
    public int Id { get; set; }
    public int ListingId { get; set; }
    public DateTime At { get; set; }
    public required string Copy { get; set; }

    /// <summary>Why it was kept, as words that follow "Kept": after a pause, before a fill, when sent.</summary>
    public string Why { get; set; } = "";

    /// <summary>The name that the seller gave it; empty where none.</summary>
    public string Name { get; set; } = "";
}

/// <summary>One try at a title. None is ever lost.</summary>
public sealed class TakeRow
{
    public int Id { get; set; }
    public int ListingId { get; set; }
    public DateTime At { get; set; }
    public required string Text { get; set; }
}

/// <summary>A finding that the seller put aside.</summary>
public sealed class AsideRow
{
    public int Id { get; set; }
    public int ListingId { get; set; }

    /// <summary>The finding's key: it names the text it is about.</summary>
    public required string Key { get; set; }
    public DateTime At { get; set; }
}

/// <summary>A listing as it was sent to a market.</summary>
public sealed class SentRow
{
    public int Id { get; set; }
    public int ListingId { get; set; }
    public required string MarketId { get; set; }
    public DateTime At { get; set; }

    /// <summary>When the market's index notices it.</summary>
    public DateTime NoticedAt { get; set; }
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

/// <summary>Where a pick should live.</summary>
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
public sealed class PickRow
{
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

/// <summary>A change to a product's picks that can be undone.</summary>
public sealed class PickChangeRow
{
    public int Id { get; set; }
    public int ProductId { get; set; }

    /// <summary>What was done, as a sentence without a full stop: picked "bird house".</summary>
    public required string What { get; set; }

    /// <summary>The picks it touched as they were, by key; null for one that was not there.</summary>
    public required Dictionary<string, PickState?> Before { get; set; }

    /// <summary>The product's facts as they were; null where the change was not to them.</summary>
    public Facts? FactsBefore { get; set; }
    public DateTime At { get; set; }
}

/// <summary>A pick's values at one time.</summary>
public sealed record PickState(string Text, Fit Fit, Home Home, string Note, string Source, int Order)
{
    public string SaidBy { get; init; } = "";
    public string Language { get; init; } = "";
}

/// <summary>A shelf's filters under a name.</summary>
public sealed class FilterRow
{
    public int Id { get; set; }
    public required string Name { get; set; }

    /// <summary>The filters as the address bar has them.</summary>
    public required string Filters { get; set; }
}

/// <summary>One step of a product's trail.</summary>
public sealed class DigRow
{
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
