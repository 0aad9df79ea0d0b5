using System.Linq.Expressions;

namespace TinRabbit.Server.Undo;

/// <summary>The changes that the undo key takes back where one is: those of the listing, the page or the screen that is open.</summary>
/// <param name="Screen">The screen; null for the shop's changes and those of the product, whatever they are about.</param>
/// <param name="ProductId">The product that is open; null for the shop as a whole.</param>
/// <param name="ListingId">The listing that is open; null where none is.</param>
/// <param name="PageId">The page that the listing is the text of; null where it is of none.</param>
/// <param name="OpenedAt">When the screen was opened: picks and alt texts of the product changed since are changed there, too.</param>
/// <param name="Since">Only changes made, or undone, after this; null for all.</param>
public sealed record ChangesHere(
    Screen? Screen = null,
    int? ProductId = null,
    int? ListingId = null,
    int? PageId = null,
    DateTime? OpenedAt = null,
    DateTime? Since = null
)
{
    /// <summary>A screen by its name; null where none is named.</summary>
    /// <exception cref="InvalidInputException">There is none of this name.</exception>
    public static Screen? ScreenOf(string? name) =>
        name is null ? null
        : Enum.TryParse<Screen>(name, ignoreCase: true, out var screen) && Enum.IsDefined(screen) ? screen
        : throw new InvalidInputException([new("screen", $"There is no screen “{name}”.")]);

    /// <summary>What the database is asked for.</summary>
    public Expression<Func<ChangeRow, bool>> Holds =>
        Screen switch
        {
            null => c => c.ProductId == ProductId || c.ProductId == null,
            Undo.Screen.Dig => c =>
                (c.Screen == Undo.Screen.Dig && (c.ProductId == ProductId || c.ProductId == null))
                || (c.Screen == Undo.Screen.Pick && c.ProductId == ProductId),
            Undo.Screen.Pick => c => c.Screen == Undo.Screen.Pick && c.ProductId == ProductId,
            Undo.Screen.Write or Undo.Screen.Weigh => OfListing,
            Undo.Screen.Watch when ListingId is not null => OfListing,
            _ => c => c.Screen == Screen,
        };

    private Expression<Func<ChangeRow, bool>> OfListing =>
        c =>
            c.ListingId == ListingId
            || (PageId != null && c.PageId == PageId)
            || (
                c.ListingId == null
                && c.ProductId == ProductId
                && (c.Screen == Undo.Screen.Pick || c.Screen == Undo.Screen.Write)
                && OpenedAt != null
                && c.At >= OpenedAt
            );
}
