using FsCheck;
using FsCheck.Fluent;
using TinRabbit.Core.Rivals;

namespace TinRabbit.Core.Tests;

/// <summary>Values of attributes among rivals, and how those that have one differ: worked by hand, and as laws.</summary>
public class AttributeValuesTests
{
    private static RivalListing Rival(string? colour, double? price = null, double? sales = null, double? occupancy = null) =>
        new(
            colour is null
                ? new Dictionary<string, IReadOnlyList<string>>()
                : new Dictionary<string, IReadOnlyList<string>> { ["Colour"] = [colour] },
            price,
            sales,
            null,
            occupancy
        );

    [Fact]
    public void The_interval_is_Welchs_on_logarithms()
    {
        // Logarithms 1, 2, 3 and 0, 1 in turn: means 2 and 0.5, variances 3/4 and 2/7.
        double[] with = [1, 2, 3, 1, 2, 3, 1, 2, 3];
        double[] without = [0, 1, 0, 1, 0, 1, 0, 1];
        var values = AttributeValues.Of([
            .. with.Select(n => Rival("Natural", Math.Exp(n))),
            .. without.Select(n => Rival(null, Math.Exp(n))),
        ]);
        var natural = Assert.Single(values);
        Assert.Equal(("Colour", "Natural", 9, 9.0 / 17), (natural.Attribute, natural.Value, natural.Held, natural.Share));
        var price = Assert.Single(natural.Differences);
        var (first, second) = (0.75 / 9, 2.0 / 7 / 8);
        var freedom = Math.Pow(first + second, 2) / (first * first / 8 + second * second / 7);
        Assert.Equal(13.49, freedom, 0.01);
        // Student's t for 13.49 degrees of freedom, 97.5 %: 2.1524 by a table, between 2.160 (13) and 2.145 (14).
        Assert.Equal(Math.Exp(1.5), price.Estimate!.Value, 1e-9);
        Assert.Equal(2.1524, Math.Log(price.High!.Value / price.Estimate.Value) / Math.Sqrt(first + second), 0.005);
        Assert.Equal(price.Estimate.Value / price.Low!.Value, price.High.Value / price.Estimate.Value, 1e-9);
        Assert.True(price.IsClear);
        Assert.StartsWith(
            "The price is 348% higher with “Colour: Natural” (9 with it, 8 without); likely between ",
            price.Sentence,
            StringComparison.Ordinal
        );
    }

    [Fact]
    public void Fewer_than_eight_are_too_few_to_say_and_a_figure_that_nobody_shows_is_left_out()
    {
        var values = AttributeValues.Of([
            .. Enumerable.Range(0, 7).Select(i => Rival("natural", 10 + i)),
            .. Enumerable.Range(0, 20).Select(i => Rival("Green", 20 + i)),
        ]);
        Assert.Equal(["Green", "natural"], values.Select(v => v.Value));
        var price = Assert.Single(values[1].Differences);
        Assert.Equal((RivalFigure.Price, 7, 20, null), (price.Figure, price.With, price.Without, price.Estimate));
        Assert.Equal("Too few to say: 7 with “Colour: natural”, 20 without; at least 8 of each are needed.", price.Sentence);
        Assert.False(price.IsClear);
    }

    [Fact]
    public void Spellings_of_one_value_are_one_and_occupancy_is_a_difference()
    {
        var values = AttributeValues.Of([
            .. Enumerable.Range(0, 9).Select(i => Rival(i % 3 == 0 ? "NATURAL" : "Natural", occupancy: 0.6 + i % 2 * 0.02)),
            .. Enumerable.Range(0, 9).Select(i => Rival(null, occupancy: 0.5 + i % 2 * 0.02)),
        ]);
        var occupancy = Assert.Single(Assert.Single(values).Differences);
        Assert.Equal("Natural", values[0].Value);
        Assert.Equal(0.1, occupancy.Estimate!.Value, 1e-9);
        Assert.StartsWith("Occupancy is 10 points higher", occupancy.Sentence, StringComparison.Ordinal);
    }

    [Fact]
    public void Where_all_are_alike_no_difference_is_claimed() =>
        Prop.ForAll(
                Gen.Choose(8, 40).ToArbitrary(),
                Gen.Choose(0, 100).ToArbitrary(),
                (count, sales) =>
                {
                    var values = AttributeValues.Of([
                        .. Enumerable.Range(0, count).Select(i => Rival("natural", sales: sales + i % 3)),
                        .. Enumerable.Range(0, count).Select(i => Rival(null, sales: sales + i % 3)),
                    ]);
                    var found = Assert.Single(Assert.Single(values).Differences);
                    Assert.Equal(1, found.Estimate!.Value, 1e-9);
                    Assert.False(found.IsClear);
                    Assert.Equal($"No clear difference in sales ({count} with it, {count} without).", found.Sentence);
                }
            )
            .QuickCheckThrowOnFailure();
}
