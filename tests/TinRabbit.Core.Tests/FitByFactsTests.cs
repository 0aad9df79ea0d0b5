using TinRabbit.Core.Measures;
using TinRabbit.Core.Words;

namespace TinRabbit.Core.Tests;

/// <summary>The fit that a new pick gets by the product's facts.</summary>
public class FitByFactsTests
{
    private static readonly FactWords Facts = new(
        "nest box",
        new Dictionary<Facet, IReadOnlyList<string>> { [Facet.Material] = ["western red cedar"], [Facet.Size] = ["small"] }
    );

    [Theory]
    [InlineData("cedar nest box", Fit.Core)]
    [InlineData("nest boxes for wrens", Fit.Core)]
    [InlineData("bird house", Fit.Good)]
    [InlineData("white nest box", Fit.Stretch)]
    [InlineData("oak bird house", Fit.Stretch)]
    public void It_depends_on_what_the_term_says(string term, Fit fit) => Assert.Equal(fit, FitByFacts.Of(term, Facts));

    [Fact]
    public void Without_facts_every_pick_is_core() =>
        Assert.Equal(Fit.Core, FitByFacts.Of("white nest box", new("", new Dictionary<Facet, IReadOnlyList<string>>())));
}
