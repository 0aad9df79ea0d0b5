namespace TinRabbit.Server.Shelf;

/// <summary>Files that were uploaded to be imported, each under an id, with its name and its bad rows beside it.</summary>
internal static class ImportFiles
{
    /// <summary>Makes room for another file; the oldest go when all that wait are too large together.</summary>
    /// <returns>Its id and its path; the file does not exist yet.</returns>
    public static (string Id, string Path) Add(DataFolder data, DateTime now)
    {
        Directory.CreateDirectory(data.Imports);
        TermImport.RemoveOldFiles(data.Imports, now);
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

    /// <summary>Where what is in a file came from, as it is shown: the file's name where it is given.</summary>
    public static string SourceOf(string? name) => name?.Trim() is { Length: > 0 } given ? given : "File";

    /// <summary>Stores an upload to be looked at before it is imported; it is removed again where it cannot be read.</summary>
    /// <param name="request">The upload.</param>
    /// <param name="data">Where it is kept.</param>
    /// <param name="now">The time, by which old uploads are removed.</param>
    /// <param name="name">What is stored beside it as its name.</param>
    /// <param name="read">Reads the file with an id at a path.</param>
    /// <param name="stop">Stops the upload.</param>
    /// <returns>Null when it is larger than <see cref="Bounds.ImportBytes"/>.</returns>
    public static async Task<T?> Store<T>(
        HttpRequest request,
        DataFolder data,
        DateTime now,
        string name,
        Func<string, string, Task<T>> read,
        CancellationToken stop
    )
        where T : class
    {
        if (request.ContentLength > Bounds.ImportBytes)
            return null;
        var (id, file) = Add(data, now);
        T? result = null;
        try
        {
            if (!await Receive(request.Body, file, stop))
                return null;
            await File.WriteAllTextAsync(file + ".name", name, stop);
            return result = await read(id, file);
        }
        finally
        {
            if (result is null)
                Remove(file);
        }
    }

    /// <summary>What is said of a file that is too large.</summary>
    public static string WhyTooLarge => $"The file is larger than {Bounds.ImportBytes >> 20} MB, the limit. Import it in parts.";

    /// <summary>The answer to an upload that is too large.</summary>
    public static ProblemHttpResult TooLarge() =>
        TypedResults.Problem(WhyTooLarge, statusCode: StatusCodes.Status413PayloadTooLarge, title: "The file is too large.");

    /// <summary>Copies an upload into a file.</summary>
    /// <returns>False when it is larger than <see cref="Bounds.ImportBytes"/>; the rest is not read then.</returns>
    public static async Task<bool> Receive(Stream body, string path, CancellationToken stop)
    {
        await using var file = File.Create(path);
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
