using TinRabbit.Core;

namespace TinRabbit.Server.Storage;

/// <summary>Files that were uploaded to be imported, each under an id, with its name and its bad rows beside it.</summary>
internal static class ImportFiles
{
    /// <summary>Makes room for another file; the oldest go when all that wait are too large together.</summary>
    /// <returns>Its id and its path; the file does not exist yet.</returns>
    public static (string Id, string Path) Add(DataFolder data)
    {
        Directory.CreateDirectory(data.Imports);
        TermImport.RemoveOldFiles(data.Imports, DateTime.UtcNow);
        MakeRoom(data);
        var id = Guid.NewGuid().ToString("N");
        return (id, PathOf(data, id));
    }

    /// <summary>The path of an uploaded file; null where there is none.</summary>
    public static string? Find(DataFolder data, string id) =>
        Guid.TryParseExact(id, "N", out _) && File.Exists(PathOf(data, id)) ? PathOf(data, id) : null;

    /// <summary>Deletes a file and what is beside it.</summary>
    public static void Remove(string file)
    {
        foreach (var gone in new[] { file, file + ".name", file + ".bad" })
            File.Delete(gone);
    }

    /// <summary>Copies an upload into a file.</summary>
    /// <returns>False when it is larger than <see cref="Bounds.ImportBytes"/>; the rest is not read then.</returns>
    public static async Task<bool> Receive(Stream body, Stream file, CancellationToken stop)
    {
        var chunk = new byte[1 << 16];
        var all = 0L;
        int read;
        while ((read = await body.ReadAsync(chunk, stop)) > 0)
        {
            if ((all += read) > Bounds.ImportBytes)
                return false;
            await file.WriteAsync(chunk.AsMemory(0, read), stop);
        }

        return true;
    }

    private static void MakeRoom(DataFolder data)
    {
        var kept = 0L;
        foreach (var file in new DirectoryInfo(data.Imports).EnumerateFiles().OrderByDescending(f => f.LastWriteTimeUtc))
            if ((kept += file.Length) > Bounds.ImportBytesKept - Bounds.ImportBytes)
                file.Delete();
    }

    private static string PathOf(DataFolder data, string id) => Path.Combine(data.Imports, id);
}
