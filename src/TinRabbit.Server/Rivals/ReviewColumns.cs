using TinRabbit.Server.Drops;
using TinRabbit.Server.Files.Tables;

namespace TinRabbit.Server.Rivals;

/// <summary>Which columns of a table hold what of reviews: guessed by their headings, and by what is in them where the headings do not say it.</summary>
internal static class ReviewColumns
{
    private const int ShortestMean = 20;
    private const int LongestName = 40;

    /// <summary>What a column can hold.</summary>
    public static readonly IReadOnlyList<DropKindName> Roles =
    [
        new("", "Not used"),
        new("text", "Review"),
        new("stars", "Stars"),
        new("date", "Date"),
        new("author", "Author"),
        new("listing", "Listing"),
    ];

    /// <summary>The role of each column; null where there is no column of texts.</summary>
    public static string[]? Guess(DropTable table)
    {
        var roles = new string[table.Width];
        Array.Fill(roles, "");
        Take(
            "stars",
            table.Find("star", "rating", "score", "sterne", "estrellas", "note"),
            // A number that can't be stars is an error that names its row, rather than a column that is left out without a word.
            c => table.Most(c, c => StarsOf(c) is not null || DropTable.IsNumber(c))
        );
        Take("date", table.Find("date", "day", "datum", "fecha", "created"), c => table.Most(c, DropTable.IsDate));
        for (var i = 0; i < table.Width; i++)
        {
            Take("date", i, c => table.Most(c, DropTable.IsDate));
            Take("stars", i, c => table.Most(c, c => StarsOf(c) is not null));
        }

        var named = table.Find("review", "text", "comment", "message", "feedback", "body", "bewertung", "kommentar", "avis", "comentario");
        var longest = Enumerable
            .Range(0, table.Width)
            .Where(i => roles[i].Length == 0 && table.Column(i).Any())
            .OrderByDescending(i => table.Column(i).Average(c => c.Length))
            .FirstOrDefault(-1);
        var text = named >= 0 && roles[named].Length == 0 ? named : longest;
        if (text < 0 || (text != named && table.Column(text).Average(c => c.Length) < ShortestMean))
            return null;
        roles[text] = "text";
        Take("listing", table.Find("listing", "item", "product", "title", "sku", "artikel", "produkt", "producto"), _ => true);
        Take("author", table.Find("author", "buyer", "name", "reviewer", "user", "customer", "from", "kunde", "cliente"), IsName);
        return roles;

        void Take(string role, int column, Func<int, bool> isSo)
        {
            if (column >= 0 && roles[column].Length == 0 && !roles.Contains(role) && isSo(column))
                roles[column] = role;
        }

        bool IsName(int column) => table.Most(column, c => c.Length <= LongestName);
    }

    /// <summary>Stars as people write them: 4, 4.5, 4/5, 5 stars, ★★★★☆; null for anything else.</summary>
    public static double? StarsOf(string cell)
    {
        var text = cell.Trim();
        if (text.Length > 0 && text.All(c => c is '★' or '☆' or '⭐'))
            return text.Count(c => c != '☆') is var drawn and >= 1 and <= 5 ? drawn : null;
        var first = text.Split(' ', '/')[0];
        return
            WrittenNumbers.Read(first, null, out var number) == WrittenNumbers.Kind.Number
            && number is >= 1 and <= 5
            && (first.Length == text.Length || text.Contains('/') || text.Contains("star", StringComparison.OrdinalIgnoreCase))
            ? (double)number
            : null;
    }
}
