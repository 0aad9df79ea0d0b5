namespace TinRabbit.Server.Drops;

/// <summary>One thing that was dropped: what it was recognised as, and what adding it adds.</summary>
/// <param name="Id">The file.</param>
/// <param name="Name">The file's name.</param>
/// <param name="Kind">What it is; null where that was not recognised.</param>
/// <param name="Kinds">What it can be taken for, the likeliest first.</param>
/// <param name="Shown">What adding it adds.</param>
/// <param name="MarketId">The market that it is of.</param>
/// <param name="Day">The day that it was seen.</param>
/// <param name="IsOut">Whether it is left out.</param>
public sealed record DropView(
    string Id,
    string Name,
    string? Kind,
    IReadOnlyList<DropKindName> Kinds,
    DropShown Shown,
    string MarketId,
    DateOnly Day,
    bool IsOut
);

/// <summary>A kind of thing, and what it is called on a screen.</summary>
public sealed record DropKindName(string Id, string Name);

/// <summary>What adding something adds.</summary>
/// <param name="Title">What it was recognised as, as a phrase.</param>
/// <param name="Facts">What was read of it.</param>
/// <param name="Heads">The columns of <paramref name="Rows"/>.</param>
/// <param name="Rows">The first rows.</param>
/// <param name="Count">How many rows there are.</param>
/// <param name="Unsure">What was not read surely, in words.</param>
/// <param name="Problem">Why it cannot be added as it is; null where it can.</param>
/// <param name="Term">The term that it is of; null where it is of none.</param>
/// <param name="NeedsTerm">Whether it is of a term.</param>
/// <param name="ListingId">The listing that it is of; null where it is of none.</param>
/// <param name="NeedsListing">Whether it is of a listing.</param>
/// <param name="OfRivals">Whether it is of rivals; null where that is no question.</param>
/// <param name="Columns">The columns of a table with their roles; empty where they are not asked.</param>
/// <param name="HasDay">Whether the day that it was seen counts.</param>
/// <param name="IsLive">Whether listings count as live since the day; null where that is no question.</param>
/// <param name="Dialog">The dialog that it is imported with, where it needs one of its own; null otherwise.</param>
public sealed record DropShown(
    string Title,
    IReadOnlyList<DropFact> Facts,
    IReadOnlyList<string> Heads,
    IReadOnlyList<DropRow> Rows,
    int Count,
    IReadOnlyList<string> Unsure,
    string? Problem = null,
    string? Term = null,
    bool NeedsTerm = false,
    int? ListingId = null,
    bool NeedsListing = false,
    bool? OfRivals = null,
    IReadOnlyList<DropColumn>? Columns = null,
    bool HasDay = false,
    bool? IsLive = null,
    string? Dialog = null
)
{
    /// <summary>The most rows of a preview.</summary>
    public const int MostRows = 200;
}

/// <summary>Something that was read, by name.</summary>
public sealed record DropFact(string Name, string Text);

/// <summary>A row of a preview.</summary>
/// <param name="IsUnsure">Whether something of it was not read surely.</param>
/// <param name="Mark">A word beside it, such as that it is an ad; null for none.</param>
public sealed record DropRow(IReadOnlyList<string> Cells, bool IsUnsure = false, string? Mark = null);

/// <summary>A column of a table.</summary>
/// <param name="Head">Its heading; empty where it has none.</param>
/// <param name="Sample">Some of its cells.</param>
/// <param name="Role">What it holds, one of <paramref name="Roles"/>; empty where it is not used.</param>
/// <param name="Roles">What it can hold.</param>
public sealed record DropColumn(int Column, string Head, IReadOnlyList<string> Sample, string Role, IReadOnlyList<DropKindName> Roles);
