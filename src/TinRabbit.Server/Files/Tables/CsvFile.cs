namespace TinRabbit.Server.Files.Tables;

/// <summary>A CSV file as an answer, with the mark by which a spreadsheet knows that it is UTF-8.</summary>
internal static class CsvFile
{
    public static FileContentHttpResult Of(string text, string name) =>
        TypedResults.File(Encoding.UTF8.GetBytes("\uFEFF" + text), "text/csv; charset=utf-8", name);
}
