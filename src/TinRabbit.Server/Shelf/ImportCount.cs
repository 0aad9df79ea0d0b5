namespace TinRabbit.Server.Shelf;

/// <summary>The result of an import.</summary>
/// <param name="New">Terms that the shelf did not know.</param>
/// <param name="Changed">Known terms with new numbers; the old reading is kept.</param>
/// <param name="Same">Known terms with the same numbers.</param>
/// <param name="Repeated">Rows whose term an earlier row has: the first counts.</param>
/// <param name="Id">The import, by which it is undone.</param>
public sealed record ImportCount(int New, int Changed, int Same, int Repeated, int Id = 0);
