using FsCheck;
using FsCheck.Fluent;
using TinRabbit.Core.Edits;
using TinRabbit.Core.Platforms;
using TinRabbit.Core.Words;

namespace TinRabbit.Core.Tests;

/// <summary>One edit of many listings, and text fitted to another platform: examples a seller would check, and laws.</summary>
public class EditsTests
{
    private static readonly Platform Platform = Samples.Platform(Folds.Diacritics);

    private static string? After(ListingEdit edit, string title) =>
        edit.Apply(Platform, Samples.Copy(("title", title))).GetValueOrDefault("title") is FieldValue.Text text ? text.Value : null;

    private static ListingEdit Replace(string find, string with, bool whole = true, bool capitals = false) =>
        new(EditKind.Replace, find, with) { WholeWords = whole, MatchesCase = capitals };

    [Theory]
    [InlineData("Bird house, big bird house", "bird house", "birdhouse", true, false, "birdhouse, big birdhouse")]
    [InlineData("Bird houses and a bird house", "bird house", "nest box", true, false, "Bird houses and a nest box")]
    [InlineData("Bird houses and a bird house", "bird house", "nest box", false, false, "nest boxs and a nest box")]
    [InlineData("Bird house, bird house", "bird house", "nest box", true, true, "Bird house, nest box")]
    [InlineData("cedar", "cedar", "red cedar", true, false, "red cedar")]
    // What is removed takes its comma and its space along.
    [InlineData("Cedar box, white, for wrens", "white", "", true, false, "Cedar box, for wrens")]
    [InlineData("White white white", "white", "", true, false, "")]
    [InlineData("white, white box", "white", "", true, false, "box")]
    public void A_text_is_replaced(string title, string find, string with, bool whole, bool capitals, string expected) =>
        Assert.Equal(expected, After(Replace(find, with, whole, capitals), title));

    [Fact]
    public void Nothing_is_changed_where_the_text_is_not_found() => Assert.Null(After(Replace("owl", "bat"), "Bird house"));

    [Fact]
    public void Only_the_chosen_fields_are_changed_and_an_item_that_becomes_empty_goes()
    {
        var copy = Samples.Copy(("title", "white box"), ("tags", new[] { "white", "white box", "owl box" }), ("notes", "white"));
        var all = Replace("white", "").Apply(Platform, copy);
        Assert.Equal(["notes", "tags", "title"], all.Keys.Order());
        Assert.Equal(["box", "owl box"], Assert.IsType<FieldValue.Items>(all["tags"]).Values);
        Assert.Equal(["tags"], (Replace("white", "") with { Roles = ["tags"] }).Apply(Platform, copy).Keys);
    }

    [Fact]
    public void Of_a_body_only_the_text_is_changed_not_the_markup()
    {
        var platform = Platform with { Fields = [Platform.Fields[2] with { Shape = FieldShape.Rich }] };
        var copy = Samples.Copy(("description", "<p class=\"box\">A box. <a href=\"/box\">Our box</a></p>"));
        var after = Assert.IsType<FieldValue.Text>(Replace("box", "house").Apply(platform, copy)["description"]);
        Assert.Equal("<p class=\"box\">A house. <a href=\"/box\">Our house</a></p>", after.Value);
    }

    [Fact]
    public void Categories_attributes_and_addresses_are_left_alone()
    {
        var platform = Platform with
        {
            Fields =
            [
                Platform.Fields[0] with
                {
                    Role = "slug",
                },
                Platform.Fields[1] with
                {
                    Key = "category",
                    Role = "",
                    Shape = FieldShape.Path,
                },
            ],
        };
        Assert.Empty(Replace("box", "house").Apply(platform, Samples.Copy(("title", "box"), ("category", new[] { "box" }))));
    }

    [Fact]
    public void A_tag_is_added_once_and_removed_in_any_capitals()
    {
        var copy = Samples.Copy(("tags", new[] { "Owl Box", "bird house" }));
        Assert.Empty(new ListingEdit(EditKind.AddTag, "owl-box").Apply(Platform, copy));
        Assert.Equal(["Owl Box", "bird house", "bat box"], Tags(new(EditKind.AddTag, " bat box "), copy));
        Assert.Equal(["bird house"], Tags(new(EditKind.RemoveTag, "owl box"), copy));
        Assert.Empty(new ListingEdit(EditKind.RemoveTag, "bat box").Apply(Platform, copy));
        // A listing without tags gets its first.
        Assert.Equal(["bat box"], Tags(new(EditKind.AddTag, "bat box"), Samples.Copy()));
    }

    private static IReadOnlyList<string> Tags(ListingEdit edit, IReadOnlyDictionary<string, FieldValue> copy) =>
        Assert.IsType<FieldValue.Items>(edit.Apply(Platform, copy)["tags"]).Values;

    private static readonly Gen<string> AnyText =
        from words in Gen.Elements("bird", "Bird", "house", "birdhouse", ",", "pájaro", "鳥", "<", ">", "ab", "ba").ListOf()
        from space in Gen.Elements(" ", "", ", ")
        select string.Join(space, words);

    [Fact]
    public void A_replacement_ends_and_leaves_no_whole_word_that_it_looked_for() =>
        Prop.ForAll(
                AnyText.ToArbitrary(),
                Gen.Elements("bird", "house", "a", "ab", "bird house").ToArbitrary(),
                Gen.Elements("", "owl", "x y").ToArbitrary(),
                (text, find, with) =>
                {
                    var after = After(Replace(find, with), text) ?? text;
                    Assert.DoesNotContain(
                        System.Text.RegularExpressions.Regex.Matches(
                            after,
                            $@"(?<![\p{{L}}\p{{Nd}}]){find}(?![\p{{L}}\p{{Nd}}])",
                            System.Text.RegularExpressions.RegexOptions.IgnoreCase
                        ),
                        // Removing words can bring two others together that were apart.
                        _ => !find.Contains(' ')
                    );
                }
            )
            .QuickCheckThrowOnFailure();

    private static readonly Gen<(Field Field, FieldValue Value)> Fields =
        from unit in Gen.Elements(Unit.Characters, Unit.Bytes, Unit.Words)
        from max in Gen.Choose(1, 30)
        from items in Gen.Choose(1, 4)
        from texts in AnyText.ListOf()
        from many in Gen.Elements(true, false)
        select (
            Platform.Fields[many ? 1 : 0] with
            {
                Limit = new(max, unit, many ? items : null),
            },
            many ? (FieldValue)new FieldValue.Items([.. texts]) : new FieldValue.Text(string.Join(", ", texts))
        );

    [Fact]
    public void What_was_fitted_fits_and_what_fits_already_stays_as_it_is() =>
        Prop.ForAll(
                Fields.ToArbitrary(),
                one =>
                {
                    var fitted = Fitting.Fit(one.Field, one.Value);
                    Assert.True(RoomUsed.Of(one.Field, fitted).Fits);
                    if (RoomUsed.Of(one.Field, one.Value).Fits)
                        Assert.Same(one.Value, fitted);
                    else if (one.Value is FieldValue.Text text)
                        Assert.StartsWith(((FieldValue.Text)fitted).Value, text.Value, StringComparison.Ordinal);
                }
            )
            .QuickCheckThrowOnFailure();

    [Fact]
    public void A_long_title_loses_whole_phrases_from_the_end_and_a_long_phrase_its_last_words()
    {
        var title = Platform.Fields[0] with { Limit = new(20, Unit.Characters, null) };
        string Fit(string text) => ((FieldValue.Text)Fitting.Fit(title, new FieldValue.Text(text))).Value;
        Assert.Equal("Nest box, cedar", Fit("Nest box, cedar, for small birds"));
        Assert.Equal("A very long title", Fit("A very long title indeed"));
        Assert.Equal("", Fit("Onewordthatisfartoolongforit"));
    }
}
