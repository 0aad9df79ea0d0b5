namespace TinRabbit.Server.Shelf;

/// <summary>A table that is uploaded and read in one step.</summary>
internal sealed class TableUpload(TinContext db, DataFolder data)
{
    /// <summary>Receives a table and reads its rows.</summary>
    /// <param name="body">The upload.</param>
    /// <param name="read">Reads the file at a path; the rows are no longer read from it afterwards.</param>
    /// <param name="empty">What is said where it has no row.</param>
    /// <param name="stop">Stops the upload.</param>
    /// <exception cref="InvalidInputException">The file is too large or empty, or what <paramref name="read"/> throws.</exception>
    public Task<IReadOnlyList<TRow>> Read<TRow>(
        Stream body,
        Func<string, IReadOnlyList<TRow>> read,
        string empty,
        CancellationToken stop
    ) => Read(body, file => Task.FromResult(read(file)), empty, stop);

    /// <summary>The same for what is read step by step.</summary>
    public async Task<IReadOnlyList<TRow>> Read<TRow>(
        Stream body,
        Func<string, Task<IReadOnlyList<TRow>>> read,
        string empty,
        CancellationToken stop
    )
    {
        var (_, file) = ImportFiles.Add(data, db.Now);
        try
        {
            if (!await ImportFiles.Receive(body, file, stop))
                throw new InvalidInputException([new("file", ImportFiles.WhyTooLarge)]);
            return await read(file) is { Count: > 0 } rows ? rows : throw new InvalidInputException([new("file", empty)]);
        }
        finally
        {
            ImportFiles.Remove(file);
        }
    }
}
