using TinRabbit.Server.Files.Documents;
using TinRabbit.Server.Files.Html.Reading;
using TinRabbit.Server.Files.Tables;
using TinRabbit.Server.Shelf;

namespace TinRabbit.Server.Drops;

/// <summary>Receives what is dropped or pasted, and unpacks what holds several files: ZIP archives and web archives.</summary>
internal static class DropFiles
{
    private const int MostFiles = 500;
    private const long LargestPage = 4L * PageReader.MostCharacters;
    private static readonly string[] Tables = [".csv", ".tsv", ".xlsx", ".txt", ".json", ".jsonld"];
    private static readonly string[] Archives = [".mht", ".mhtml"];
    private static readonly string[] Pictures = [".jpg", ".jpeg", ".png", ".webp", ".gif", ".avif"];

    /// <summary>Takes an upload.</summary>
    /// <returns>The files in it: itself, or those of an archive. Null when it is larger than <see cref="Bounds.ImportBytes"/>.</returns>
    /// <exception cref="InvalidInputException">It is empty, damaged, or an archive without anything that can be read.</exception>
    public static async Task<List<DroppedFile>?> Receive(
        HttpRequest request,
        string? name,
        DataFolder data,
        DateTime now,
        CancellationToken stop
    )
    {
        var files = new List<DroppedFile>();
        var isDone = false;
        try
        {
            var (id, path) = ImportFiles.Add(data, now);
            files.Add(new(id, NameOf(name), HasEnding(NameOf(name), Pictures)));
            if (request.ContentLength > Bounds.ImportBytes || !await ImportFiles.Receive(request.Body, path, stop))
                return null;
            if (new FileInfo(path).Length == 0)
                throw Wrong($"“{NameOf(name)}” is empty.");
            await SaveName(path, NameOf(name), stop);
            await Unpack(files, path, data, now, stop);
            isDone = true;
            return files;
        }
        finally
        {
            if (!isDone)
                Remove(data, files.Select(f => f.Id));
        }
    }

    /// <summary>Forgets files.</summary>
    public static void Remove(DataFolder data, IEnumerable<string> ids)
    {
        foreach (var id in ids)
            if (ImportFiles.Find(data, id) is { } file)
                ImportFiles.Remove(file);
    }

    /// <summary>The name of a file that waits; null where there is none.</summary>
    public static async Task<(string Path, string Name)?> Find(DataFolder data, string id, CancellationToken stop) =>
        ImportFiles.Find(data, id) is { } path && File.Exists(path + ".name")
            ? (path, await File.ReadAllTextAsync(path + ".name", stop))
            : null;

    /// <summary>Whether a name is a picture's.</summary>
    public static bool IsPicture(string name) => HasEnding(name, Pictures);

    private static async Task Unpack(List<DroppedFile> files, string path, DataFolder data, DateTime now, CancellationToken stop)
    {
        var (archive, name) = (files[0], files[0].Name);
        if (ZipFiles.IsZip(path))
        {
            // A workbook is a table, and a whole shop is imported as one.
            if (await ZipFiles.Has(path, p => p is "xl/workbook.xml" or "shop.json"))
                return;
            await ZipFiles.Read(path, MostBytes, (inner, content) => Add(inner, content), stop);
        }
        else if (MhtmlFiles.IsMhtml(await FileText.Start(path, stop)))
            await MhtmlFiles.Read(
                path,
                type =>
                    type is "text/html" ? LargestPage
                    : type.StartsWith("image/", StringComparison.Ordinal) ? Core.Bounds.PictureBytes
                    : 0,
                (address, type, content) =>
                    type is "text/html"
                        // The first page is the one that was saved; the others stand in frames of it.
                        ? files.Exists(f => !f.IsPicture && f != archive)
                            ? Task.CompletedTask
                            : Add(name, content)
                        : Add(address, content, isPicture: true),
                stop
            );
        else
            return;
        if (files.TrueForAll(f => f.IsPicture || f == archive))
            throw Wrong($"There is no page, table or text in “{name}”.");
        Remove(data, [archive.Id]);
        files.Remove(archive);

        async Task Add(string inner, MemoryStream content, bool? isPicture = null)
        {
            if (files.Count > MostFiles)
                throw Wrong($"“{name}” has more than {MostFiles:#,0} files that can be read. Import it in parts.");
            var (id, file) = ImportFiles.Add(data, now);
            files.Add(new(id, inner, isPicture ?? IsPicture(inner)));
            await using (var written = File.Create(file))
                await content.CopyToAsync(written, stop);
            await SaveName(file, inner, stop);
        }
    }

    private static long MostBytes(string path) =>
        path.StartsWith("__MACOSX/", StringComparison.Ordinal) ? 0
        : HtmlPages.IsHtml(path) || HasEnding(path, Archives) ? LargestPage
        : HasEnding(path, Tables) ? Bounds.ImportBytes
        : IsPicture(path) ? Core.Bounds.PictureBytes
        : 0;

    private static bool HasEnding(string name, string[] endings) =>
        Array.Exists(endings, e => name.EndsWith(e, StringComparison.OrdinalIgnoreCase));

    private static Task SaveName(string path, string name, CancellationToken stop) => File.WriteAllTextAsync(path + ".name", name, stop);

    private static string NameOf(string? name) => ImportFiles.SourceOf(name?.Replace('\\', '/'));

    private static InvalidInputException Wrong(string message) => new([new("file", message)]);
}
