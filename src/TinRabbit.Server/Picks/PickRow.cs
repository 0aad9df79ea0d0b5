using TinRabbit.Server.Listings;

namespace TinRabbit.Server.Picks;

/// <summary>A term kept for a product.</summary>
public sealed class PickRow : IDeletable, IWeighed
{
    public DateTime? DeletedAt { get; set; }

    public int Id { get; set; }
    public int ProductId { get; set; }
    public ProductRow Product { get; set; } = null!;
    public required string Text { get; set; }
    public required string Key { get; set; }
    public Fit Fit { get; set; }

    /// <summary>Whether the seller chose the fit; otherwise it follows the product's facts.</summary>
    public bool FitByHand { get; set; }
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

    /// <summary>The same pick for a copy of the product.</summary>
    public PickRow CopyFor(ProductRow product) =>
        new()
        {
            Product = product,
            Text = Text,
            Key = Key,
            Fit = Fit,
            FitByHand = FitByHand,
            Home = Home,
            Note = Note,
            Source = Source,
            SaidBy = SaidBy,
            Language = Language,
            Order = Order,
        };
}
