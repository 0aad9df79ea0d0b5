namespace TinRabbit.Server.Files.Tables;

/// <summary>The cells of the current row of a table. A cell is valid until the next one is read.</summary>
public sealed class TableCells(Func<int> count, TableCells.Reader read)
{
    /// <summary>Reads one cell of the current row.</summary>
    public delegate ReadOnlySpan<char> Reader(int column);

    /// <summary>How many cells the row has.</summary>
    public int Count => count();

    /// <summary>One cell's text.</summary>
    public ReadOnlySpan<char> this[int column] => read(column);

    /// <summary>Copies all cells.</summary>
    public string[] ToArray()
    {
        var all = new string[Count];
        for (var i = 0; i < all.Length; i++)
            all[i] = read(i).ToString();
        return all;
    }
}
