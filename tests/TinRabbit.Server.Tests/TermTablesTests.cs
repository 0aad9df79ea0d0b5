using System.Text;
using MiniExcelLibs;
using TinRabbit.Core.Platforms;
using TinRabbit.Server.Files.Tables;

namespace TinRabbit.Server.Tests;

/// <summary>Tables of terms in every dress they come in.</summary>
public sealed class TermTablesTests : IDisposable
{
    private readonly string _folder = Directory.CreateTempSubdirectory("tin-rabbit-test-").FullName;

    public void Dispose() => Directory.Delete(_folder, true);

    [Theory]
    [InlineData("1300", null, 1300)]
    [InlineData("1,300", null, 1300)]
    [InlineData("1.300", null, 1300)]
    [InlineData("1 300", null, 1300)]
    [InlineData("1’300", null, 1300)]
    [InlineData("1,300,000", null, 1300000)]
    [InlineData("12.1k", null, 12100)]
    [InlineData("12,1k", null, 12100)]
    [InlineData("1.2M", null, 1200000)]
    [InlineData("0,45", null, 0.45)]
    [InlineData("$1.25", null, 1.25)]
    [InlineData("1.300,50", null, 1300.5)]
    [InlineData("1,300.50", null, 1300.5)]
    [InlineData("1.300", NumberStyle.Point, 1.3)]
    [InlineData("1,300", NumberStyle.Comma, 1.3)]
    [InlineData("1,300", NumberStyle.Point, 1300)]
    [InlineData("1.300", NumberStyle.Comma, 1300)]
    [InlineData("~90", null, 90)]
    public void A_number_is_read_as_it_is_written(string cell, NumberStyle? style, double number)
    {
        Assert.Equal(WrittenNumbers.Kind.Number, WrittenNumbers.Read(cell, style, out var read));
        Assert.Equal((decimal)number, read);
    }

    [Theory]
    [InlineData("", WrittenNumbers.Kind.Unknown)]
    [InlineData("n/a", WrittenNumbers.Kind.Unknown)]
    [InlineData("–", WrittenNumbers.Kind.Unknown)]
    [InlineData("< 10", WrittenNumbers.Kind.Bound)]
    [InlineData("<10", WrittenNumbers.Kind.Bound)]
    [InlineData("100 – 1k", WrittenNumbers.Kind.Bound)]
    [InlineData("10K-100K", WrittenNumbers.Kind.Bound)]
    [InlineData("5000+", WrittenNumbers.Kind.Bound)]
    [InlineData("-3", WrittenNumbers.Kind.Bad)]
    [InlineData("many", WrittenNumbers.Kind.Bad)]
    [InlineData("1,30,0", WrittenNumbers.Kind.Bad)]
    [InlineData("12..5", WrittenNumbers.Kind.Bad)]
    [InlineData("9999999999999999999", WrittenNumbers.Kind.Bad)]
    public void What_is_no_number_is_unknown_a_bound_or_bad_and_never_zero(string cell, WrittenNumbers.Kind kind) =>
        Assert.Equal(kind, WrittenNumbers.Read(cell, null, out _));

    [Theory]
    [InlineData("Keyword,Search volume,Competition,CPC\nbird house,\"1,300\",210,0.45\n", ",", NumberStyle.Point)]
    [InlineData("Keyword;Search volume;Competition;CPC\nbird house;1.300;210;0,45\n", ";", NumberStyle.Comma)]
    [InlineData("Keyword\tSearch volume\tCompetition\tCPC\nbird house\t1300\t210\t0.45\n", "\t", NumberStyle.Point)]
    [InlineData("Keyword|Search volume|Competition|CPC\n\"bird house\"|1.3k|210|0.45\n", "|", NumberStyle.Point)]
    public void Separator_style_and_columns_are_guessed(string text, string separator, NumberStyle style)
    {
        var file = Write(text);
        var look = TableGuess.Of(file);
        Assert.Equal((separator, true, style), (look.Separator, look.HasHead, look.Style));
        var term = Assert.Single(Read(file, look));
        Assert.Equal((2, "bird house", 1300L, 210L, 0.45m), (term.Row, term.Text, term.Volume, term.Competition, term.ClickCost));
    }

    [Theory]
    [InlineData("utf-8", true, "utf-8")]
    [InlineData("utf-8", false, "utf-8")]
    [InlineData("utf-16", true, "utf-16")]
    [InlineData("utf-16", false, "utf-16")]
    [InlineData("utf-16BE", true, "utf-16BE")]
    [InlineData("utf-16BE", false, "utf-16BE")]
    [InlineData("windows-1252", false, "windows-1252")]
    public void The_encoding_is_guessed_with_and_without_a_mark(string encoding, bool mark, string guessed)
    {
        _ = WrittenMonths.Read(""); // the code pages are there from here on
        var bytes = Encoding.GetEncoding(encoding);
        var file = Path.Combine(_folder, "t.csv");
        File.WriteAllBytes(
            file,
            [.. mark ? bytes.GetPreamble() : [], .. bytes.GetBytes("term;volume\ncasa para pájaros;480\ncaja nido;90\n")]
        );
        var look = TableGuess.Of(file);
        Assert.Equal(guessed, look.Encoding);
        Assert.Equal(["casa para pájaros", "caja nido"], Read(file, look).Select(t => t.Text));
    }

    [Fact]
    public void Columns_without_names_are_guessed_by_what_is_in_them()
    {
        var look = TableGuess.Of(Write("1;bird house;1300;210\n2;nest box;900;80\n"));
        Assert.False(look.HasHead);
        Assert.Equal([ColumnRole.Volume, ColumnRole.Term, ColumnRole.Competition, ColumnRole.Ignore], look.Columns.Select(c => c.Role));
    }

    [Theory]
    [InlineData("Search term,Impressions,Clicks,Spend,Orders\nbook press,900,12,3.40,1\n", "Term Ignore Clicks Ignore Orders")]
    [InlineData("Search term,Impressions,Clicks,Cost per click\nbook press,900,12,0.28\n", "Term Ignore Clicks ClickCost")]
    [InlineData("Search term,Impressions,Cost\nbook press,900,0.28\n", "Term Volume ClickCost")]
    [InlineData("Search term,Impressions,Clicks,Searches\nbook press,900,12,4000\n", "Term Ignore Clicks Volume")]
    public void Impressions_and_costs_beside_clicks_are_the_listings_own_and_no_searches(string table, string roles) =>
        Assert.Equal(roles.Split(' '), TableGuess.Of(Write(table)).Columns.Select(c => $"{c.Role}"));

    [Theory]
    [InlineData("2025-01", "2025-01")]
    [InlineData("Jan 2025", "2025-01")]
    [InlineData("Searches: Feb 2025", "2025-02")]
    [InlineData("12/2024", "2024-12")]
    [InlineData("March-25", "2025-03")]
    [InlineData("2024 Dec", "2024-12")]
    [InlineData("2025-03-01", "2025-03")]
    [InlineData("Monthly searches", null)]
    [InlineData("2025", null)]
    [InlineData("13/2025", null)]
    public void A_month_is_known_by_its_heading(string head, string? month) =>
        Assert.Equal(month, WrittenMonths.Read(head)?.ToString("yyyy-MM"));

    [Fact]
    public void Month_columns_become_a_history_in_order_and_a_gap_in_it_is_refused()
    {
        var file = Write("term,Feb 2025,Jan 2025,volume\nnest box,20,10,15\nowl box,5,,9\n");
        var look = TableGuess.Of(file);
        Assert.Equal(new DateOnly(2025, 1, 1), TermTables.FirstMonth(look));
        var terms = Read(file, look);
        Assert.Equal([10, 20], terms[0].Months!);
        Assert.Null(terms[1].Months); // one month unknown: no history rather than a false one
        var gap = TableGuess.Of(Write("term,Jan 2025,Mar 2025\nnest box,1,2\n"));
        Assert.Contains("2025-01 is followed by 2025-03", Assert.Throws<InvalidInputException>(() => TableCheck.Check(gap)).Message);
    }

    [Fact]
    public void Quotes_line_breaks_and_uneven_rows_are_taken_as_they_are()
    {
        var file = Write("term,volume\n\"bird \"\"house\"\"\",5\n\"nest\nbox\",6\nowl box\nbat box,7,8,9\n\n,\n");
        var terms = Read(file, TableGuess.Of(file));
        Assert.Equal(["bird \"house\"", "nest\nbox", "owl box", "bat box"], terms.Select(t => t.Text));
        Assert.Equal([5, 6, null, 7], terms.Select(t => t.Volume));
    }

    [Fact]
    public void Bad_rows_are_told_by_number_and_reason_and_the_rest_is_read()
    {
        var file = Write($"term,volume\nbird house,5\n!!,5\nnest box,many\n{new string('x', 201)},1\n,7\nowl box,< 10\n");
        var bad = new List<BadRow>();
        var terms = TermTables.Read(file, TableGuess.Of(file), bad.Add).ToList();
        Assert.Equal(["bird house", "owl box"], terms.Select(t => t.Text));
        Assert.Equal((null, 1), (terms[1].Volume, terms[1].Bounds));
        Assert.Equal([3, 4, 5, 6], bad.Select(b => b.Row));
        Assert.Contains("no word", bad[0].Reason);
        Assert.Contains("“many” in column 2 is not a number (searches)", bad[1].Reason);
        Assert.Contains("201 characters", bad[2].Reason);
        Assert.Equal(["", "7"], bad[3].Cells);
    }

    [Fact]
    public void A_quotation_that_never_closes_is_a_problem_that_names_the_row()
    {
        var file = Write("term,volume\nbird house,5\n\"nest box,6\n" + new string('x', 3_000_000));
        var look = new TableLook("utf-8", ",", true, NumberStyle.Point, [new("term", ColumnRole.Term), new("volume", ColumnRole.Volume)]);
        Assert.Contains("Row 3", Assert.Throws<InvalidInputException>(() => Read(file, look)).Message);
    }

    [Fact]
    public void A_workbook_is_read_as_its_cells_say()
    {
        var file = Path.Combine(_folder, "t.xlsx");
        MiniExcel.SaveAs(
            file,
            new[]
            {
                new Dictionary<string, object?>
                {
                    ["Search term"] = "casa para pájaros",
                    ["Monthly volume"] = 1300,
                    ["CPC"] = 0.45,
                },
                new Dictionary<string, object?>
                {
                    ["Search term"] = "nest box",
                    ["Monthly volume"] = "12.1k",
                    ["CPC"] = null,
                },
            }
        );
        var look = TableGuess.Of(file);
        Assert.Equal(("", ""), (look.Encoding, look.Separator));
        var terms = Read(file, look);
        Assert.Equal([("casa para pájaros", 1300L, 0.45m), ("nest box", 12100L, null)], terms.Select(t => (t.Text, t.Volume, t.ClickCost)));
    }

    [Fact]
    public void What_is_no_table_says_so()
    {
        Assert.Throws<InvalidInputException>(() => TableGuess.Of(Write("")));
        Assert.Throws<InvalidInputException>(() => TableGuess.Of(Write("\n \n")));
        var broken = Path.Combine(_folder, "b.xlsx");
        File.WriteAllBytes(broken, [0x50, 0x4B, 3, 4, 1, 2, 3]);
        Assert.Throws<InvalidInputException>(() => TableGuess.Of(broken));
        var numbers = TableGuess.Of(Write("1,2\n3,4\n"));
        Assert.Throws<InvalidInputException>(() => TableCheck.Check(numbers)); // no column of terms
    }

    private string Write(string text)
    {
        var file = Path.Combine(_folder, Guid.NewGuid().ToString("N"));
        File.WriteAllText(file, text);
        return file;
    }

    private static List<TableTerm> Read(string file, TableLook look) => [.. TermTables.Read(file, look, b => Assert.Fail(b.Reason))];
}
