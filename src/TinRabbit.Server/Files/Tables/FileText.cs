using System.Text.RegularExpressions;
using System.Text.Unicode;

namespace TinRabbit.Server.Files.Tables;

/// <summary>The text of a file that does not say its encoding from outside.</summary>
internal static partial class FileText
{
    // Where browsers look for the encoding that a page names.
    private const int Head = 1024;

    static FileText() => Encoding.RegisterProvider(CodePagesEncodingProvider.Instance);

    /// <summary>Decodes it: by its byte order mark, as UTF-8 where it is valid, in the encoding that a page names, otherwise as Windows-1252.</summary>
    public static string Decode(byte[] bytes)
    {
        using var reader = new StreamReader(new MemoryStream(bytes), EncodingOf(bytes), detectEncodingFromByteOrderMarks: true);
        return reader.ReadToEnd();
    }

    /// <summary>How a file begins, without white space before it: what it is is seen from that.</summary>
    public static async Task<string> Start(string file, CancellationToken stop)
    {
        var head = new char[512];
        using var reader = new StreamReader(file, detectEncodingFromByteOrderMarks: true);
        return new string(head, 0, await reader.ReadBlockAsync(head, stop)).TrimStart();
    }

    private static Encoding EncodingOf(byte[] bytes)
    {
        if (Utf8.IsValid(bytes))
            return Encoding.UTF8;
        var head = Encoding.Latin1.GetString(bytes.AsSpan(0, Math.Min(Head, bytes.Length)));
        var named = Charset().Match(head).Groups[1].Value;
        return CodePagesEncodingProvider.Instance.GetEncoding(named) ?? Encoding.GetEncoding("windows-1252");
    }

    [GeneratedRegex("charset\\s*=\\s*[\"']?([\\w-]+)", RegexOptions.IgnoreCase)]
    private static partial Regex Charset();
}
