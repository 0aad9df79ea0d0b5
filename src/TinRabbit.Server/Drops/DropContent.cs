using TinRabbit.Server.Files.Html.Reading;
using TinRabbit.Server.Files.Tables;

namespace TinRabbit.Server.Drops;

/// <summary>What somebody dropped or pasted, read as far as it is asked for.</summary>
/// <param name="file">The file.</param>
/// <param name="path">Where it is.</param>
/// <param name="textPath">For what was pasted as HTML, the same as text; null otherwise.</param>
/// <param name="context">Where it was dropped.</param>
internal sealed class DropContent(DroppedFile file, string path, string? textPath, DropContext context)
{
    private const int LongestText = 2_000_000;

    private bool _isRead;

    public DroppedFile File => file;

    /// <summary>Where it is stored.</summary>
    public string Path => IsTableText && textPath is not null ? textPath : path;

    /// <summary>What it is called where it is named as a source.</summary>
    public string Source => file.Name.Split('/')[^1] is { Length: > 0 } name ? name : file.Name;

    public DropContext Context => context;

    /// <summary>Whether it is HTML.</summary>
    public bool IsHtml { get; private set; }

    /// <summary>Whether it is JSON.</summary>
    public bool IsJson { get; private set; }

    /// <summary>Whether it is a workbook, or an archive that was not unpacked.</summary>
    public bool IsZip { get; private set; }

    /// <summary>Whether HTML was pasted whose text is a table, as from a spreadsheet.</summary>
    public bool IsTableText { get; private set; }

    /// <summary>How it begins.</summary>
    public string Start { get; private set; } = "";

    /// <summary>Its text, where it is text that is not too long; null otherwise.</summary>
    public string? Text { get; private set; }

    /// <summary>It as a page; null where it is no page.</summary>
    public ReadPage? Page { get; private set; }

    /// <summary>It as a table; null where it is none.</summary>
    public DropTable? Table { get; private set; }

    /// <summary>Reads what it is.</summary>
    /// <exception cref="InvalidInputException">It is beyond a bound, or damaged.</exception>
    public async Task Read(CancellationToken stop)
    {
        if (_isRead)
            return;
        _isRead = true;
        IsZip = Files.Documents.ZipFiles.IsZip(path);
        if (IsZip)
        {
            if (await Files.Documents.ZipFiles.Has(path, p => p == "xl/workbook.xml"))
                Table = DropTable.Of(path);
            return;
        }

        var start = Start = await FileText.Start(path, stop);
        IsHtml = start.StartsWith('<');
        IsJson = start.StartsWith('{') || start.StartsWith('[');
        if (textPath is not null)
        {
            var copied = await ReadText(textPath, stop);
            if (copied is not null && IsTabular(copied))
                (IsTableText, IsHtml, Text, Table) = (true, false, copied, DropTable.Of(textPath));
        }

        if (IsTableText || IsJson)
            return;
        if (IsHtml)
        {
            if (new FileInfo(path).Length > 4L * PageReader.MostCharacters)
                throw TooLong();
            var html = FileText.Decode(await System.IO.File.ReadAllBytesAsync(path, stop));
            Page = await Task.Run(() => PageReader.Read(html, null, context.Shop, stop), stop);
            if (Page.Kind == ReadKind.Other && textPath is not null && await ReadText(textPath, stop) is { } text)
                (Text, Page) = (text, PageReader.Read(null, text, context.Shop, stop));
            return;
        }

        Text = await ReadText(path, stop);
        if (Text is null)
        {
            Table = DropTable.Of(path);
            return;
        }

        Table = DropTable.OfText(path);
        if (Table is null)
            Page = PageReader.Read(null, Text, context.Shop, stop);
    }

    private static async Task<string?> ReadText(string path, CancellationToken stop) =>
        new FileInfo(path).Length <= LongestText ? FileText.Decode(await System.IO.File.ReadAllBytesAsync(path, stop)) : null;

    // Cells are apart by tabs, as many in most lines.
    private static bool IsTabular(string text)
    {
        var lines = text.Split('\n').Where(l => l.Trim().Length > 0).Take(50).ToList();
        return lines.Count > 1 && lines.Count(l => l.Contains('\t')) * 10 >= lines.Count * 8;
    }

    private static InvalidInputException TooLong() =>
        new([new("file", $"This page is larger than {PageReader.MostCharacters >> 20} million characters, the limit.")]);
}
