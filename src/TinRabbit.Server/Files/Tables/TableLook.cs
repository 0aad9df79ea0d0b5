namespace TinRabbit.Server.Files.Tables;

/// <summary>How to read a table of terms: guessed, then corrected by the seller.</summary>
/// <param name="Encoding">Name of the character encoding; empty for XLSX.</param>
/// <param name="Separator">The delimiter; empty for XLSX.</param>
/// <param name="HasHead">Whether the first row names the columns.</param>
/// <param name="Style">How its numbers are written.</param>
public sealed record TableLook(
    [MaxLength(40)] string Encoding,
    [MaxLength(40)] string Separator,
    bool HasHead,
    NumberStyle Style,
    [MaxLength(Bounds.ImportColumns)] IReadOnlyList<TableColumn> Columns
);
