using TinRabbit.Core.Edits;
using TinRabbit.Core.Platforms;
using TinRabbit.Core.Words;

namespace TinRabbit.Core.Tests;

public sealed class InsertionTests
{
    [Theory]
    [InlineData("Nest box for wrens", "Cedar nest box for wrens")]
    [InlineData("Handmade nest box, garden gift", "Handmade cedar nest box, garden gift")]
    [InlineData("A Nest Box for Wrens", "A Cedar Nest Box for Wrens")]
    [InlineData("Nest Box", "Cedar Nest Box")]
    [InlineData("Honest box", null)]
    [InlineData("Nest", null)]
    [InlineData("", null)]
    public void A_word_stands_before_the_noun_that_it_narrows_in_the_capitals_of_the_text(string text, string? expected) =>
        Assert.Equal(expected, Insertion.Before(text, "cedar", "nest box"));

    [Fact]
    public void Without_the_noun_it_is_a_phrase_of_the_title_and_without_room_there_a_sentence_of_the_description()
    {
        var sample = Samples.Platform(Folds.None);
        Field Limited(string role, FieldShape shape, int max) =>
            sample.Fields[0] with
            {
                Key = role,
                Role = role,
                Shape = shape,
                Separator = ", ",
                Limit = new(max, Unit.Characters, null),
            };
        var platform = sample with { Fields = [Limited("title", FieldShape.Line, 30), Limited("meta", FieldShape.Text, 60)] };
        Assert.Equal("For wrens, cedar nest box", Put(("title", "For wrens")));
        Assert.Equal("Cedar nest box", Put());
        Assert.Equal("Made by hand. Cedar nest box.", Put(("title", "A gift for all who love wrens"), ("meta", "Made by hand")));
        Assert.Null(Put(("title", "A gift for all who love wrens"), ("meta", new string('x', 50))));

        string? Put(params (string Key, object Value)[] copy) => Insertion.Of(platform, Samples.Copy(copy), "cedar", "nest box")?.Text;
    }
}
