namespace TinRabbit.Server.Shelf;

/// <summary>Finished imports that are taken back and made again. Nothing of them is lost meanwhile, and saves get in between.</summary>
internal static class ImportTakenBack
{
    /// <summary>Takes back what a finished import wrote, so that it can be made again: its new terms are put aside, and the known ones get the readings that they had.</summary>
    public static async Task Withdraw(TinContext db, ImportRow import, WriteGate writes)
    {
        using var connection = new ImportConnection(db.Database.GetConnectionString()!, writes);
        await SwapReadings(connection, import);
        await MoveTerms(connection, import, import.MarketId, Aside(import));
    }

    /// <summary>Makes an import again. Terms that were added meanwhile stay as they are.</summary>
    public static async Task Return(TinContext db, ImportRow import, WriteGate writes)
    {
        using var connection = new ImportConnection(db.Database.GetConnectionString()!, writes);
        await MoveTerms(connection, import, Aside(import), import.MarketId);
        await SwapReadings(connection, import);
    }

    // Terms that are put aside are on a shelf that no market has.
    private static string Aside(ImportRow import) => $"import {import.Id}, taken back";

    // A term that was measured by somebody else in the meantime stays on its shelf.
    private static async Task MoveTerms(ImportConnection connection, ImportRow import, string from, string to)
    {
        for (var first = 0L; first < import.Rows; first += TermImport.Portion)
        {
            (string, object)[] some =
            [
                ("$t1", import.FirstTerm + first),
                ("$t2", import.FirstTerm + Math.Min(import.Rows, first + TermImport.Portion) - 1),
                ("$r1", import.FirstReading),
                ("$r2", import.FirstReading + import.Rows - 1),
                ("$from", from),
                ("$to", to),
            ];
            await connection.Write(
                () =>
                    connection.Run(
                        "UPDATE OR IGNORE Terms SET MarketId = $to WHERE Id BETWEEN $t1 AND $t2 AND MarketId = $from AND (ReadingId IS NULL OR ReadingId BETWEEN $r1 AND $r2)",
                        some
                    ),
                CancellationToken.None
            );
        }
    }

    // The reading that counts and the one that is remembered change places; where another came in meanwhile, that one stays.
    private static Task SwapReadings(ImportConnection connection, ImportRow import) =>
        connection.Write(
            () =>
            {
                (string, object)[] about =
                [
                    ("$id", import.Id),
                    ("$r1", import.FirstReading),
                    ("$r2", import.FirstReading + import.Rows - 1),
                ];
                connection.Run(
                    "CREATE TEMP TABLE Swapped AS SELECT c.TermId, c.ReadingId AS Other, t.ReadingId AS Counts FROM ImportChanges c JOIN Terms t ON t.Id = c.TermId "
                        + "WHERE c.ImportId = $id AND (t.ReadingId BETWEEN $r1 AND $r2 OR c.ReadingId BETWEEN $r1 AND $r2)",
                    about
                );
                connection.Run("UPDATE Terms SET ReadingId = s.Other FROM Swapped s WHERE Terms.Id = s.TermId");
                connection.Run(
                    "UPDATE ImportChanges SET ReadingId = s.Counts FROM Swapped s WHERE ImportChanges.ImportId = $id AND ImportChanges.TermId = s.TermId",
                    about
                );
                connection.Run("DROP TABLE Swapped");
            },
            CancellationToken.None
        );
}
