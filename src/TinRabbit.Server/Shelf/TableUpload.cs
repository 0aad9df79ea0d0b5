using TinRabbit.Core.Platforms;
using TinRabbit.Server.Storage;

namespace TinRabbit.Server.Shelf;

/// <summary>A table that is uploaded and read in one step.</summary>
internal sealed class TableUpload(TinContext db, DataFolder data)
{
    /// <summary>Receives a table and reads its rows.</summary>
    /// <param name="body">The upload.</param>
    /// <param name="read">Reads the file at a path.</param>
    /// <param name="empty">What is said where it has no row.</param>
    /// <param name="stop">Stops the upload.</param>
    /// <exception cref="InvalidInputException">The file is too large or empty, or what <paramref name="read"/> throws.</exception>
    public async Task<IReadOnlyList<TRow>> Read<TRow>(
        Stream body,
        Func<string, IReadOnlyList<TRow>> read,
        string empty,
        CancellationToken stop
    ) =>
        await ImportFiles.ReadOnce(data, db.Now, body, read, stop) is { Count: > 0 } rows
            ? rows
            : throw new InvalidInputException([new("file", empty)]);
}
