using MimeKit;

namespace TinRabbit.Server.Files.Documents;

/// <summary>Reads web archives (MHTML, RFC 2557): a page with its pictures in one file, as browsers save it.</summary>
internal static class MhtmlFiles
{
    private const int MostParts = 2_000;
    private const int MostDepth = 16;

    /// <summary>Whether a file begins as a web archive does.</summary>
    public static bool IsMhtml(string start) =>
        (
            start.Contains("MIME-Version:", StringComparison.OrdinalIgnoreCase)
            || start.StartsWith("From:", StringComparison.OrdinalIgnoreCase)
        ) && start.Contains("multipart/related", StringComparison.OrdinalIgnoreCase);

    /// <summary>The parts of an archive: each with where it came from, its type and its content. Nothing is fetched.</summary>
    /// <param name="file">The archive.</param>
    /// <param name="mostBytes">How large a part may be, by its type; 0 for one that is not read.</param>
    /// <param name="read">Is given each part's address, type and content.</param>
    /// <param name="stop">Stops the reading.</param>
    /// <exception cref="InvalidInputException">It is damaged, or a part is too large.</exception>
    public static async Task Read(
        string file,
        Func<string, long> mostBytes,
        Func<string, string, MemoryStream, Task> read,
        CancellationToken stop
    )
    {
        MimeMessage message;
        try
        {
            await using var stream = File.OpenRead(file);
            message = await MimeMessage.LoadAsync(new ParserOptions { MaxMimeDepth = MostDepth }, stream, stop);
        }
        catch (FormatException)
        {
            throw Wrong("This web archive is damaged or incomplete. Nothing was imported.");
        }

        using (message)
        {
            var parts = message.BodyParts.OfType<MimePart>().Take(MostParts + 1).ToList();
            if (parts.Count > MostParts)
                throw Wrong($"This web archive has more than {MostParts:#,0} parts, the limit.");
            foreach (var part in parts)
            {
                stop.ThrowIfCancellationRequested();
                var type = part.ContentType.MimeType.ToLowerInvariant();
                if (part.Content is null || mostBytes(type) is not (> 0 and var most))
                    continue;
                using var content = new MemoryStream();
                await part.Content.DecodeToAsync(content, stop);
                if (content.Length > most)
                    throw Wrong($"A part of this web archive is larger than {most >> 20:#,0} MB, the limit.");
                content.Position = 0;
                await read(part.ContentLocation?.OriginalString ?? part.ContentId ?? "", type, content);
            }
        }
    }

    private static InvalidInputException Wrong(string message) => new([new("file", message)]);
}
