using TinRabbit.Server.Files.Html.Reading;
using TinRabbit.Server.Files.Tables;

namespace TinRabbit.Server.Files.Documents;

/// <summary>Pages that a seller saved: one as HTML, or several in a ZIP.</summary>
internal static class SavedPages
{
    /// <summary>Whether a file is a page, or a ZIP of pages; a table is neither.</summary>
    public static async Task<bool> Are(string file, CancellationToken stop) =>
        ZipFiles.IsZip(file) ? await ZipFiles.Has(file, IsHtml) : (await FileText.Start(file, stop)).StartsWith('<');

    /// <summary>Reads them.</summary>
    /// <param name="file">A page, or a ZIP of pages.</param>
    /// <param name="shop">The seller's own shop; null where it does not matter.</param>
    /// <param name="stop">Stops the reading.</param>
    /// <exception cref="InvalidInputException">A page is beyond a bound, or the archive is damaged.</exception>
    public static async Task<IReadOnlyList<ReadPage>> Read(string file, string? shop, CancellationToken stop)
    {
        if (!ZipFiles.IsZip(file))
            return new FileInfo(file).Length <= 2L * PageReader.MostCharacters
                ? [PageReader.Read(FileText.Decode(await File.ReadAllBytesAsync(file, stop)), null, shop, stop)]
                : throw new InvalidInputException([
                    new("file", $"This page is larger than {PageReader.MostCharacters >> 20} million characters, the limit."),
                ]);
        var pages = new List<ReadPage>();
        await ZipFiles.Read(
            file,
            path => IsHtml(path) ? PageReader.MostCharacters : 0,
            (_, content) =>
            {
                pages.Add(PageReader.Read(FileText.Decode(content.ToArray()), null, shop, stop));
                return Task.CompletedTask;
            },
            stop
        );
        return pages;
    }

    /// <summary>Whether a file of an archive is a page, by its name.</summary>
    public static bool IsHtml(string path) =>
        path.EndsWith(".html", StringComparison.OrdinalIgnoreCase) || path.EndsWith(".htm", StringComparison.OrdinalIgnoreCase);
}
