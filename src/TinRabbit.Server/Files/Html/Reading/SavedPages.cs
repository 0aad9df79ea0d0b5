using System.IO.Compression;
using TinRabbit.Server.Files.Documents;
using TinRabbit.Server.Files.Tables;

namespace TinRabbit.Server.Files.Html.Reading;

/// <summary>Pages that a seller saved: one as HTML, or several in a ZIP.</summary>
internal static class SavedPages
{
    /// <summary>Whether a file is a page, or a ZIP of pages; a table is neither.</summary>
    public static async Task<bool> Are(string file, CancellationToken stop)
    {
        if (ZipFiles.IsZip(file))
        {
            await using var stream = File.OpenRead(file);
            try
            {
                await using var archive = new ZipArchive(stream);
                return archive.Entries.Any(e => IsHtml(e.FullName));
            }
            catch (InvalidDataException)
            {
                return false;
            }
        }

        var head = new char[512];
        using var reader = new StreamReader(file);
        return new string(head, 0, await reader.ReadBlockAsync(head, stop)).TrimStart().StartsWith('<');
    }

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

    private static bool IsHtml(string path) =>
        path.EndsWith(".html", StringComparison.OrdinalIgnoreCase) || path.EndsWith(".htm", StringComparison.OrdinalIgnoreCase);
}
