using System.IO.Compression;
using System.IO.Hashing;
using TinRabbit.Server.Files.Tables;

namespace TinRabbit.Server.Files.Documents;

/// <summary>Reads ZIP archives that somebody gives: never to a path that the archive names, and never more than a bound.</summary>
internal static class ZipFiles
{
    private const int MostEntries = 20_000;
    private const long MostBytes = 1L << 30;

    /// <summary>Whether a file is a ZIP archive, by its first bytes.</summary>
    public static bool IsZip(string file) => TableRows.IsXlsx(file);

    /// <summary>Whether an archive has a file like that; its content is not read.</summary>
    /// <exception cref="InvalidInputException">It is damaged.</exception>
    public static async Task<bool> Has(string file, Func<string, bool> isPath)
    {
        try
        {
            await using var stream = File.OpenRead(file);
            await using var archive = new ZipArchive(stream, ZipArchiveMode.Read);
            return archive.Entries.Any(e => isPath(e.FullName));
        }
        catch (InvalidDataException)
        {
            throw Wrong("This archive is damaged or incomplete. Nothing was imported.");
        }
    }

    /// <summary>Reads the files of an archive. What it says of its sizes is not believed: bytes are counted while they are read.</summary>
    /// <param name="file">The archive.</param>
    /// <param name="mostBytes">How large a file of the archive may be, by its path in it; 0 for one that is not read.</param>
    /// <param name="read">Is given each file's path and content; the path is never one to write to.</param>
    /// <param name="stop">Stops the reading.</param>
    /// <exception cref="InvalidInputException">It is damaged, incomplete, or unpacks to too much.</exception>
    public static async Task Read(string file, Func<string, long> mostBytes, Func<string, MemoryStream, Task> read, CancellationToken stop)
    {
        try
        {
            await using var stream = File.OpenRead(file);
            await using var archive = new ZipArchive(stream, ZipArchiveMode.Read);
            if (archive.Entries.Count > MostEntries)
                throw Wrong($"This archive has {archive.Entries.Count:#,0} files; the most is {MostEntries:#,0}.");
            var (all, seen) = (0L, new HashSet<string>(StringComparer.Ordinal));
            foreach (var entry in archive.Entries)
            {
                var path = entry.FullName.Replace('\\', '/');
                if (mostBytes(path) is not (> 0 and var most))
                    continue;
                if (!seen.Add(path))
                    throw Wrong($"This archive has two files “{path}”. Nothing was imported.");
                stop.ThrowIfCancellationRequested();
                await using var packed = await entry.OpenAsync(stop);
                using var unpacked = new MemoryStream();
                var chunk = new byte[1 << 16];
                int count;
                while ((count = await packed.ReadAsync(chunk, stop)) > 0)
                {
                    if (unpacked.Length + count > most)
                        throw Wrong($"“{path}” in this archive is larger than {most >> 20:#,0} MB, the limit.");
                    if ((all += count) > MostBytes)
                        throw Wrong($"This archive unpacks to more than {MostBytes >> 20:#,0} MB, the limit.");
                    unpacked.Write(chunk, 0, count);
                }

                if (Crc32.HashToUInt32(unpacked.GetBuffer().AsSpan(0, (int)unpacked.Length)) != entry.Crc32)
                    throw Wrong($"“{path}” in this archive is damaged: its checksum is wrong. Nothing was imported.");
                unpacked.Position = 0;
                await read(path, unpacked);
            }
        }
        catch (InvalidDataException)
        {
            throw Wrong("This archive is damaged or incomplete. Nothing was imported.");
        }
    }

    private static InvalidInputException Wrong(string message) => new([new("file", message)]);
}
