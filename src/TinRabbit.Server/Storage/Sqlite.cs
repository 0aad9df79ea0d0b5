using System.Runtime.InteropServices;

namespace TinRabbit.Server.Storage;

/// <summary>The few calls of SQLite that a million rows make ten million times, without the wrapping that costs more than they do.</summary>
internal static unsafe partial class Sqlite
{
    private static readonly nint Transient = -1;

    [LibraryImport("e_sqlite3", EntryPoint = "sqlite3_step")]
    public static partial int Step(nint statement);

    [LibraryImport("e_sqlite3", EntryPoint = "sqlite3_reset")]
    public static partial int Reset(nint statement);

    [LibraryImport("e_sqlite3", EntryPoint = "sqlite3_column_int"), SuppressGCTransition]
    public static partial int Int(nint statement, int column);

    [LibraryImport("e_sqlite3", EntryPoint = "sqlite3_column_double"), SuppressGCTransition]
    public static partial double Double(nint statement, int column);

    /// <summary>A text as UTF-8; it is there until the next step. Empty where there is none.</summary>
    public static ReadOnlySpan<byte> Text(nint statement, int column) => new(TextAt(statement, column), Bytes(statement, column));

    private static void Check(int result)
    {
        if (result != 0)
            throw new Microsoft.Data.Sqlite.SqliteException("A value could not be bound.", result);
    }

    public static void Bind(nint statement, int parameter, long? value)
    {
        if (value is { } known)
            Check(BindNumber(statement, parameter, known));
        else
            Check(BindNull(statement, parameter));
    }

    public static void Bind(nint statement, int parameter, string? value)
    {
        if (value is null)
        {
            Check(BindNull(statement, parameter));
            return;
        }

        Span<byte> bytes = value.Length <= 200 ? stackalloc byte[600] : new byte[Encoding.UTF8.GetMaxByteCount(value.Length)];
        var length = Encoding.UTF8.GetBytes(value, bytes);
        fixed (byte* at = bytes)
            Check(BindText(statement, parameter, at, length, Transient));
    }

    [LibraryImport("e_sqlite3", EntryPoint = "sqlite3_column_text"), SuppressGCTransition]
    private static partial byte* TextAt(nint statement, int column);

    [LibraryImport("e_sqlite3", EntryPoint = "sqlite3_column_bytes"), SuppressGCTransition]
    private static partial int Bytes(nint statement, int column);

    [LibraryImport("e_sqlite3", EntryPoint = "sqlite3_bind_int64"), SuppressGCTransition]
    private static partial int BindNumber(nint statement, int parameter, long value);

    [LibraryImport("e_sqlite3", EntryPoint = "sqlite3_bind_null"), SuppressGCTransition]
    private static partial int BindNull(nint statement, int parameter);

    [LibraryImport("e_sqlite3", EntryPoint = "sqlite3_bind_text"), SuppressGCTransition]
    private static partial int BindText(nint statement, int parameter, byte* text, int length, nint free);
}
