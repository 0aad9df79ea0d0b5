using TinRabbit.Core.Platforms;
using TinRabbit.Server.Files.Tables;
using TinRabbit.Server.Listings;

namespace TinRabbit.Server.Tests;

public class FormatsTests
{
    [Theory]
    [InlineData("bird house", null, null)]
    [InlineData("bird house\t1300", 1300L, null)]
    [InlineData("bird house\t1,300\t2.450", 1300L, 2450L)]
    [InlineData("bird house;12.1k;?", 12100L, null)]
    [InlineData("bird house; 1 300; 40", 1300L, 40L)]
    [InlineData("bird house, 1,300", 1300L, null)]
    [InlineData("bird house,900,400", 900L, 400L)]
    [InlineData("bird house,,12", null, 12L)]
    [InlineData("bird house\t1,2k\t", 1200L, null)]
    [InlineData("\"bird house\",5", 5L, null)]
    public void A_pasted_line_is_read(string line, long? volume, long? competition)
    {
        var (terms, bad) = PastedTerms.Read(line);
        Assert.Empty(bad);
        Assert.Equal(new PastedTerm(1, "bird house", volume, competition), Assert.Single(terms));
    }

    [Theory]
    [InlineData("bird house, nest box; owl box\tbat box | wren house")]
    [InlineData("bird house\nnest box, owl box\n\nbat box;wren house;")]
    [InlineData("bird house,nest box,owl box,bat box,wren house")]
    [InlineData("keyword\nbird house|nest box|owl box|bat box|wren house")]
    public void A_list_without_numbers_may_be_split_by_anything(string text)
    {
        var (terms, bad) = PastedTerms.Read(text);
        Assert.Empty(bad);
        Assert.Equal(["bird house", "nest box", "owl box", "bat box", "wren house"], terms.Select(t => t.Text));
    }

    [Fact]
    public void A_comma_between_digits_splits_no_term() =>
        Assert.Equal(["1,000 piece puzzle", "jigsaw"], PastedTerms.Read("1,000 piece puzzle; jigsaw").Terms.Select(t => t.Text));

    [Theory]
    [InlineData("!!\t5", "no word")]
    [InlineData("bird house\tmany", "“many” is not a number of searches")]
    [InlineData("bird house\t5\t-3", "“-3” is not a number of listings")]
    [InlineData("bird\t1\t2\t3", "4 columns")]
    public void A_bad_line_is_named_with_its_reason(string line, string reason)
    {
        var (terms, bad) = PastedTerms.Read("Term\tvolume\nwren house\n\n" + line);
        Assert.Equal("wren house", Assert.Single(terms).Text);
        var one = Assert.Single(bad);
        Assert.Equal((4, line), (one.Line, one.Text));
        Assert.Contains(reason, one.Reason);
    }

    [Theory]
    [InlineData("2026-03-31", 2026, 3, 31)]
    [InlineData("2026/3/1", 2026, 3, 1)]
    [InlineData("2026-03-31T06:00:00Z", 2026, 3, 31)]
    [InlineData("2026-03-31 6:00 PM", 2026, 3, 31)]
    [InlineData("31 Mar 2026", 2026, 3, 31)]
    [InlineData("March 31, 2026", 2026, 3, 31)]
    [InlineData("31/03/2026", 2026, 3, 31)]
    [InlineData("03/31/2026 06:00", 2026, 3, 31)]
    [InlineData("3.4.2026", 2026, 4, 3)]
    [InlineData("04/04/2026", 2026, 4, 4)]
    public void A_date_is_read_as_tables_write_it(string text, int year, int month, int day) =>
        Assert.Equal(new DateOnly(year, month, day), WrittenDates.Read(text, WrittenDates.Order.Unknown));

    [Theory]
    [InlineData("03/04/2026", true)]
    [InlineData("3-4-2026 12:00", true)]
    [InlineData("31/31/2026", false)]
    [InlineData("30/02/2026", false)]
    [InlineData("31/03/26", false)]
    [InlineData("2026-13-01", false)]
    [InlineData("2026-03", false)]
    [InlineData("0/0/0000", false)]
    [InlineData("soon", false)]
    [InlineData("", false)]
    public void What_is_no_date_or_could_be_two_is_none(string text, bool couldBeTwo)
    {
        Assert.Null(WrittenDates.Read(text, WrittenDates.Order.Unknown));
        Assert.Equal(couldBeTwo, WrittenDates.IsAmbiguous(text));
    }

    [Theory]
    [InlineData(4, 3, "03/04/2026", "25/03/2026", "24/03/2026")]
    [InlineData(3, 4, "03/04/2026", "03/25/2026")]
    public void The_other_dates_of_a_table_say_which_number_is_the_day(int month, int day, params string[] table) =>
        Assert.Equal(new DateOnly(2026, month, day), WrittenDates.Read(table[0], WrittenDates.OrderOf(table)));

    [Fact]
    public void Dates_that_contradict_each_other_say_nothing() =>
        Assert.Equal(WrittenDates.Order.Unknown, WrittenDates.OrderOf(["25/03/2026", "03/25/2026"]));

    [Fact]
    public async Task The_shipped_profiles_satisfy_the_shipped_schema_and_so_does_what_is_written()
    {
        var schema = await NJsonSchema.JsonSchema.FromFileAsync(
            Path.Combine(Repository.Root, "src/TinRabbit.Server/wwwroot/schemas/platform.json")
        );
        foreach (var file in Directory.GetFiles(Path.Combine(Repository.Root, "src/TinRabbit.Server/Listings/Shipped")))
            Assert.Empty(schema.Validate(await File.ReadAllTextAsync(file)));
        foreach (var platform in ShippedPlatforms.All)
            Assert.Empty(schema.Validate(PlatformJson.Write(platform).ToJsonString().Replace("\"spelling\":null,", "")));
    }

    [Theory]
    [InlineData("""{"fields":[{"key":"t","shape":"lane"}]}""")]
    [InlineData("""{"fields":[{"key":"t","shape":"line","limit":{"max":0}}]}""")]
    [InlineData("""{"fields":[{"key":"t","shape":"line","weigth":1}]}""")]
    [InlineData("""{"fields":[],"search":{"folds":["plurals"]}}""")]
    [InlineData("""{"name":"no fields"}""")]
    public async Task Schema_and_reader_refuse_the_same(string profile)
    {
        var schema = await NJsonSchema.JsonSchema.FromFileAsync(
            Path.Combine(Repository.Root, "src/TinRabbit.Server/wwwroot/schemas/platform.json")
        );
        Assert.NotEmpty(schema.Validate(profile));
        Assert.Throws<InvalidInputException>(() => PlatformJson.Read(profile));
    }
}
