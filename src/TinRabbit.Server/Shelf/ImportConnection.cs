using Microsoft.Data.Sqlite;
using SQLitePCL;

namespace TinRabbit.Server.Shelf;

/// <summary>A connection below EF Core, for what touches more rows than go through objects.</summary>
internal sealed class ImportConnection : IDisposable
{
    private readonly WriteGate _writes;
    private readonly SqliteConnection _connection;

    /// <summary>Opens a database beside whoever else has it open.</summary>
    public ImportConnection(string connectionString, WriteGate writes)
    {
        _writes = writes;
        // Rows refer to each other before both are there; what is written is consistent as a whole.
        _connection = new(new SqliteConnectionStringBuilder(connectionString) { ForeignKeys = false, Pooling = false }.ToString());
        _connection.Open();
    }

    public sqlite3 Handle => _connection.Handle!;

    /// <inheritdoc/>
    public void Dispose() => _connection.Dispose();

    /// <summary>Writes as one: all or nothing, with no other writer in between.</summary>
    public async Task Write(Action write, CancellationToken stop)
    {
        using var turn = await _writes.Enter(stop);
        Run("BEGIN IMMEDIATE");
        try
        {
            write();
            stop.ThrowIfCancellationRequested();
            Run("COMMIT");
        }
        catch
        {
            // Some errors end the transaction by themselves.
            if (raw.sqlite3_get_autocommit(Handle) == 0)
                Run("ROLLBACK");
            throw;
        }
    }

    /// <summary>Runs a statement.</summary>
    /// <returns>How many rows it changed.</returns>
    public int Run(string sql, params (string Name, object Value)[] parameters)
    {
        using var command = Command(sql, parameters);
        return command.ExecuteNonQuery();
    }

    /// <summary>The number that a statement gives.</summary>
    public long Ask(string sql, params (string Name, object Value)[] parameters)
    {
        using var command = Command(sql, parameters);
        return (long)command.ExecuteScalar()!;
    }

    private SqliteCommand Command(string sql, (string Name, object Value)[] parameters)
    {
        var command = _connection.CreateCommand();
        command.CommandText = sql;
        command.CommandTimeout = 60;
        foreach (var (name, value) in parameters)
            command.Parameters.AddWithValue(name, value);
        return command;
    }
}
