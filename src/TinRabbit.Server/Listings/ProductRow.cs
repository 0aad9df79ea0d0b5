using TinRabbit.Server.Pictures;

namespace TinRabbit.Server.Listings;

/// <summary>The thing sold.</summary>
public sealed class ProductRow : IRenamed, IWeighed
{
    public DateTime? DeletedAt { get; set; }

    public int Id { get; set; }
    public int ShopId { get; set; }
    public required string Name { get; set; }

    /// <summary>Whether it is what a category or content page is about: it has picks and facts, but nothing is sold.</summary>
    public bool IsPage { get; set; }

    /// <summary>Whether it is only an idea: a list of picks that may become a product.</summary>
    public bool IsIdea { get; set; }
    public Facts Facts { get; set; } = new();

    /// <summary>Counts the changes to name and facts, so that two windows notice each other.</summary>
    public int Revision { get; set; }

    /// <summary>The same for the alt texts.</summary>
    public int PicturesRevision { get; set; }
    public List<PictureRow> Pictures { get; } = [];
    public List<ListingRow> Listings { get; } = [];

    public void Rename(string name) => (Name, Revision) = (name, Revision + 1);
}
