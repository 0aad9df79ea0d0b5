using TinRabbit.Server.Listings;

namespace TinRabbit.Server.Files.Documents;

/// <summary>How a marketplace's own export is laid out.</summary>
public sealed record DocumentShape(
    [MaxLength(Bounds.NameLength)] string Platform,
    [MaxLength(Bounds.ImportColumns)] IReadOnlyList<UploadColumn> Columns
);
