namespace TinRabbit.Server.Storage;

/// <summary>The folder that holds everything of the shop. Only one running program has it at a time.</summary>
internal sealed class DataFolder : IDisposable
{
    private readonly FileStream _lock;

    private DataFolder(string path, FileStream held) => (Path, _lock) = (path, held);

    /// <summary>The folder, as a full path.</summary>
    public string Path { get; }

    /// <summary>The shop's database.</summary>
    public string Database => In("tinrabbit.db");

    /// <summary>Copies of the database.</summary>
    public string Backups => In("backups");

    /// <summary>Files that wait to be imported.</summary>
    public string Imports => In("imports");

    /// <summary>The pictures of the shop.</summary>
    public string Pictures => In("pictures");

    /// <summary>The owner's password, hashed.</summary>
    public string Owner => In("owner.json");

    /// <summary>What a market source said of itself, for starts at which it cannot be reached.</summary>
    public string Market => In("market.json");

    /// <summary>What the program did, a file a day.</summary>
    public string Logs => In("logs");

    /// <summary>Keys that sign the login cookie.</summary>
    public string Keys => In("keys");

    /// <summary>Opens a folder, and makes it where it is missing. The operating system releases the lock when the program ends, however it ends.</summary>
    /// <exception cref="StartProblem">It cannot be written, or another program has it open.</exception>
    public static DataFolder Open(string path)
    {
        try
        {
            Directory.CreateDirectory(path);
            var probe = System.IO.Path.Combine(path, ".writable");
            File.WriteAllText(probe, "x");
            File.Delete(probe);
        }
        catch (Exception e) when (e is IOException or UnauthorizedAccessException)
        {
            throw new StartProblem(
                e.Message.Contains("No space left", StringComparison.OrdinalIgnoreCase)
                    ? $"The disk that holds {path} is full. Free some space and start again; nothing was lost."
                    : $"Tin Rabbit cannot write to {path}: choose another folder with --data DIR.",
                e
            );
        }

        try
        {
            return new(
                path,
                new FileStream(System.IO.Path.Combine(path, "tinrabbit.lock"), FileMode.OpenOrCreate, FileAccess.ReadWrite, FileShare.None)
            );
        }
        catch (Exception e) when (e is IOException or UnauthorizedAccessException)
        {
            throw new StartProblem($"Another Tin Rabbit is running on {path}. Stop it first, or choose another folder with --data DIR.", e);
        }
    }

    /// <inheritdoc/>
    public void Dispose() => _lock.Dispose();

    private string In(string name) => System.IO.Path.Combine(Path, name);
}
