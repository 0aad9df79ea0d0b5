using System.IO.Compression;
using System.Text;

namespace TinRabbit.Server.Tests;

/// <summary>Small files that are large, endless or broken inside.</summary>
internal static class HostileFiles
{
    private const string Sheet =
        "<worksheet xmlns=\"http://schemas.openxmlformats.org/spreadsheetml/2006/main\">{0}<sheetData>{1}</sheetData></worksheet>";
    private const string Head =
        "<row r=\"1\"><c r=\"A1\" t=\"inlineStr\"><is><t>term</t></is></c><c r=\"B1\" t=\"inlineStr\"><is><t>volume</t></is></c></row>";

    public static byte[] Workbook(string how)
    {
        if (how == "no zip")
            return [0x50, 0x4B, 3, 4, .. "this is no archive"u8];
        using var file = new MemoryStream();
        using (var zip = new ZipArchive(file, ZipArchiveMode.Create, leaveOpen: true))
        {
            Write(zip, "docProps/app.xml", "<Properties/>");
            if (how != "no sheet")
                Write(
                    zip,
                    "xl/worksheets/sheet1.xml",
                    how switch
                    {
                        "far corner" => Of(
                            "<dimension ref=\"A1:XFD1048576\"/>",
                            Head + Row(2, Text("A2", "bird house")) + Row(1048576, Text("XFD1048576", "x"))
                        ),
                        "far row" => Of("", Head + Row(3_000_000, Text("A3000000", "x"))),
                        "one large cell" => Of("", Head + Row(2, Text("A2", new string('x', 400 << 20 >> 2)))),
                        "one large shared text" or "missing text" => Of("", Head + Row(2, "<c r=\"A2\" t=\"s\"><v>7</v></c>")),
                        "no styles" => Of("", Head + Row(2, Text("A2", "bird house") + "<c r=\"B2\" s=\"99\"><v>5</v></c>")),
                        "broken XML" => "<worksheet><sheetData><row r=\"1\"><c",
                        "entities" => "<!DOCTYPE x [<!ENTITY a \"aaaaaaaaaa\"><!ENTITY b \"&a;&a;&a;&a;&a;&a;&a;&a;\">]>"
                            + Of("", Head + Row(2, Text("A2", "&b;"))),
                        _ => throw new ArgumentOutOfRangeException(nameof(how)),
                    }
                );
            if (how == "one large shared text")
                Write(
                    zip,
                    "xl/sharedStrings.xml",
                    $"<sst xmlns=\"http://schemas.openxmlformats.org/spreadsheetml/2006/main\"><si><t>{new string('x', 100 << 20)}</t></si></sst>"
                );
        }

        return file.ToArray();
    }

    public static byte[] Table(string how) =>
        how switch
        {
            "four hundred and one columns" => Encoding.UTF8.GetBytes(
                string.Join(',', Enumerable.Range(0, 401).Select(i => $"column {i}")) + "\nbird house,5\n"
            ),
            "first row too long" => Encoding.UTF8.GetBytes($"term,{new string('x', 2 << 20)}\nbird house,5\n"),
            _ => [],
        };

    private static string Of(string before, string rows) =>
        string.Format(System.Globalization.CultureInfo.InvariantCulture, Sheet, before, rows);

    private static string Row(int number, string cells) => $"<row r=\"{number}\">{cells}</row>";

    private static string Text(string at, string text) => $"<c r=\"{at}\" t=\"inlineStr\"><is><t>{text}</t></is></c>";

    private static void Write(ZipArchive zip, string name, string text)
    {
        using var part = new StreamWriter(zip.CreateEntry(name, CompressionLevel.Optimal).Open());
        part.Write(text);
    }
}
