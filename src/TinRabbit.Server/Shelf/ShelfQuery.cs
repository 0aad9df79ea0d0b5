namespace TinRabbit.Server.Shelf;

/// <summary>A search of a shelf. Null filters nothing; an unknown number passes no bound.</summary>
/// <param name="Has">Words, or beginnings and middles of words, that the term must have; with a minus before it, one that it must not.</param>
/// <param name="Source">Only readings of this source.</param>
/// <param name="Also">Keys of terms that need not have the words of <paramref name="Head"/>: those that a dig found. Without a head, only these pass.</param>
/// <param name="Head">Words that the term must have unless it is among <paramref name="Also"/>.</param>
/// <param name="By">In which order; the most searched first when nothing is said.</param>
/// <param name="Down">Whether the highest comes first. Unknown values come last either way.</param>
/// <param name="Skip">How many to leave out.</param>
/// <param name="Take">How many to give.</param>
public sealed record ShelfQuery(
    [MaxLength(Bounds.NoteLength)] string? Has = null,
    double? VolumeFrom = null,
    double? VolumeTo = null,
    double? CompetitionFrom = null,
    double? CompetitionTo = null,
    double? HeadroomFrom = null,
    double? HeadroomTo = null,
    double? TitlesTo = null,
    double? ClickCostTo = null,
    [MaxLength(Bounds.NameLength)] string? Source = null,
    [Term] IReadOnlyList<string>? Also = null,
    [Term] string? Head = null,
    ShelfOrder By = ShelfOrder.Volume,
    bool Down = true,
    int Skip = 0,
    int Take = 200
);
