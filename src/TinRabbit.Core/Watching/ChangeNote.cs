namespace TinRabbit.Core.Watching;

/// <summary>That something was changed, and when.</summary>
/// <param name="Id">Tells it from the others.</param>
/// <param name="ProductId">The product it is about; null for all.</param>
/// <param name="ListingId">The listing it is about; null for all of the product.</param>
/// <param name="MarketId">The market; null for all.</param>
/// <param name="At">When the change was made, in UTC.</param>
/// <param name="CountsFrom">When shoppers' searches know of it.</param>
public sealed record ChangeNote(int Id, int? ProductId, int? ListingId, string? MarketId, DateTime At, DateTime CountsFrom)
{
    /// <summary>The day of the change.</summary>
    public DateOnly Day => DateOnly.FromDateTime(At);

    /// <summary>The first whole day on which the change counts.</summary>
    public DateOnly FirstDay => DateOnly.FromDateTime(CountsFrom > At ? CountsFrom : At).AddDays(1);
}
