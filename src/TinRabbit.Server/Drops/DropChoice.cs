namespace TinRabbit.Server.Drops;

/// <summary>What the seller corrected of one thing that was dropped. Null is as it was recognised.</summary>
/// <param name="Id">The file.</param>
/// <param name="Kind">One of <see cref="DropView.Kinds"/>.</param>
/// <param name="Term">What was searched for or typed.</param>
/// <param name="MarketId">The market that it is of.</param>
/// <param name="Day">The day that it was seen.</param>
/// <param name="ListingId">The listing that it is of.</param>
/// <param name="OfRivals">Whether it is of rivals.</param>
/// <param name="Columns">The roles of columns of a table.</param>
/// <param name="IsLive">Whether listings are live as they are, since <paramref name="Day"/>.</param>
/// <param name="IsOut">Whether it is left out.</param>
public sealed record DropChoice(
    [MaxLength(Bounds.NameLength)] string Id,
    [MaxLength(40)] string? Kind = null,
    [Term] string? Term = null,
    [MaxLength(Bounds.NameLength)] string? MarketId = null,
    DateOnly? Day = null,
    int? ListingId = null,
    bool? OfRivals = null,
    [MaxLength(Bounds.ImportColumns)] IReadOnlyList<ChosenRole>? Columns = null,
    bool? IsLive = null,
    bool IsOut = false
);

/// <summary>What a column of a table holds.</summary>
/// <param name="Column">Its number, from 0.</param>
/// <param name="Role">One of <see cref="DropColumn.Roles"/>; empty where it is not used.</param>
public sealed record ChosenRole([Range(0, Bounds.ImportColumns)] int Column, [MaxLength(Bounds.NameLength)] string Role);
