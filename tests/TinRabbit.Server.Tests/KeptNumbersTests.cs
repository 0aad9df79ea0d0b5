using System.Text.Json.Nodes;

namespace TinRabbit.Server.Tests;

/// <summary>A newer reading that lacks a number does not hide the older one: each number stays in force with its own source and day.</summary>
public sealed class KeptNumbersTests : IDisposable
{
    private const string Market = "hedgerow-fair-us";
    private readonly TestShop _shop = new(demo: false, isReal: true);

    public void Dispose() => _shop.Dispose();

    [Fact]
    public async Task A_pasted_list_without_a_column_leaves_that_number_as_it_was()
    {
        await Paste("notebook cover\t90\t12", "first");
        await Paste("notebook cover\t100", "second");
        var numbers = await Numbers("notebook cover");
        Assert.Equal((100, 12, "second"), (Number(numbers, "volume"), Number(numbers, "competition"), Source(numbers)));
        Assert.Equal(["competition first"], Kept(numbers));
        // What was kept is kept again, and still says where it came from.
        await Paste("notebook cover\t110", "third");
        numbers = await Numbers("notebook cover");
        Assert.Equal((110, 12), (Number(numbers, "volume"), Number(numbers, "competition")));
        Assert.Equal(["competition first"], Kept(numbers));
        // The shelf, by which everything is weighed, has them too; and the same list once more changes nothing.
        var row = (await _shop.Shelf(Market, new { take = 1 }))["rows"]![0]!["numbers"]!;
        Assert.Equal(12, Number(row, "competition"));
        await Paste("notebook cover\t110", "third");
        Assert.Equal(3, (await Term("notebook cover"))["readings"]!.AsArray().Count);
    }

    [Fact]
    public async Task A_file_without_a_column_does_too_and_taking_the_import_back_brings_back_what_was()
    {
        await Paste("notebook cover\t90\t12", "first");
        await Paste("leather cover\t50", "first");
        await Import("term,volume\nnotebook cover,300\nleather cover,60\nnew cover,5\n", "a file");
        var numbers = await Numbers("notebook cover");
        Assert.Equal((300, 12, "a file"), (Number(numbers, "volume"), Number(numbers, "competition"), Source(numbers)));
        Assert.Equal(["competition first"], Kept(numbers));
        Assert.Empty(Kept(await Numbers("leather cover")));
        Assert.Empty(Kept(await Numbers("new cover")));

        await Import("term,competition\nnotebook cover,14\n", "another file");
        numbers = await Numbers("notebook cover");
        Assert.Equal((300, 14, "another file"), (Number(numbers, "volume"), Number(numbers, "competition"), Source(numbers)));
        Assert.Equal(["volume a file"], Kept(numbers));

        await Undo();
        await Undo();
        numbers = await Numbers("notebook cover");
        Assert.Equal((90, 12, "first"), (Number(numbers, "volume"), Number(numbers, "competition"), Source(numbers)));
        Assert.Empty(Kept(numbers));
    }

    [Fact]
    public async Task What_a_person_leaves_empty_is_unknown()
    {
        await Paste("notebook cover\t90\t12", "first");
        var right = await _shop.Post(
            $"/api/markets/{Market}/correct",
            new
            {
                text = "notebook cover",
                volume = 80,
                competition = (long?)null,
                titlesHolding = (long?)null,
                clickCost = (decimal?)null,
            }
        );
        Assert.Null(right["competition"]);
        Assert.Empty(Kept(right));
    }

    private Task Paste(string text, string source) => _shop.Post($"/api/markets/{Market}/paste", new { text, source });

    private async Task Import(string csv, string source)
    {
        using var body = new StringContent(csv);
        using var response = await _shop.Client.PostAsync($"/api/markets/{Market}/imports?name=terms.csv", body);
        var view = JsonNode.Parse(await response.Content.ReadAsStringAsync())!;
        await _shop.Lines($"/api/markets/{Market}/imports/{view["id"]}/run", new { look = view["look"], source });
    }

    private Task Undo() => _shop.Post("/api/changes/undo?sure=true", new { });

    private Task<JsonNode> Term(string text) => _shop.Get($"/api/markets/{Market}/term?text={Uri.EscapeDataString(text)}");

    private async Task<JsonNode> Numbers(string text) => (await Term(text))["numbers"]!;

    private static int Number(JsonNode numbers, string name) => numbers[name]!.GetValue<int>();

    private static string Source(JsonNode numbers) => numbers["source"]!.GetValue<string>();

    private static IEnumerable<string> Kept(JsonNode numbers) =>
        numbers["kept"]!.AsArray().Select(k => $"{k!["field"]!.GetValue<string>()} {k["source"]!.GetValue<string>()}");
}
