namespace TinRabbit.Server.Drops;

/// <summary>What was added, in the list of changes.</summary>
internal static class DropMessages
{
    public static string Added(IReadOnlyList<string> titles) =>
        titles.Count == 1 ? $"Imported {Lower(titles[0])}" : $"Imported {titles.Count:#,0} pages and files";

    private static string Lower(string title) => title.Length == 0 ? "a file" : char.ToLowerInvariant(title[0]) + title[1..];
}
