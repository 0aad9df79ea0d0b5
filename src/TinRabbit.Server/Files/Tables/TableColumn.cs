namespace TinRabbit.Server.Files.Tables;

/// <summary>A column of a table of terms.</summary>
/// <param name="Head">Its heading; empty without one.</param>
/// <param name="Month">For a month, which one, as 2025-01.</param>
public sealed record TableColumn([MaxLength(Bounds.ImportCell)] string Head, ColumnRole Role, [MaxLength(40)] string? Month = null);
