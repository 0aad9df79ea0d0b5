using FsCheck;
using FsCheck.Fluent;
using TinRabbit.Core.Words;

namespace TinRabbit.Core.Tests;

public class TokensTests
{
    [Theory]
    [InlineData("Cedar Bird House", "cedar|bird|house")]
    [InlineData("5x7 print", "5x7|print")]
    [InlineData("5 x 7", "5|x|7")]
    [InlineData("nest-box", "nest|box")]
    [InlineData("women’s ‘best’ 28.5mm, 1,300 birds. Next", "women's|best|28.5mm|1,300|birds|next")]
    [InlineData("birders' hide 'n seek", "birders|hide|n|seek")]
    [InlineData("3'x5' sign", "3|x5|sign")]
    [InlineData("ﬁnch ＢＯＸ ①", "finch|box|1")]
    [InlineData("casa para pa\u0301jaros", "casa|para|pájaros")]
    [InlineData("🏡wren🐦box", "wren|box")]
    [InlineData("v1.2.3 a.b", "v1.2.3|a|b")]
    [InlineData("... !!", "")]
    [InlineData("a\ud800b", "a|b")]
    public void Text_is_cut_into_words(string text, string words) =>
        Assert.Equal(words, string.Join('|', Tokens.Of(text).Select(t => t.Word)));

    [Theory]
    [InlineData("🏡 Wren’s box", "wren's", "Wren’s")]
    [InlineData("e\u0301clair ﬁnch box", "finch", "ﬁnch")]
    [InlineData("½ price box", "box", "box")]
    [InlineData("pa\u0301jaros", "pájaros", "pa\u0301jaros")]
    [InlineData("👩\u200d👩\u200d👧 ＢＯＸ… kit", "kit", "kit")]
    [InlineData("İstanbul 𝐛ird box", "bird", "𝐛ird")]
    public void A_word_knows_where_it_stands_in_the_original(string text, string word, string original)
    {
        var token = Tokens.Of(text).Single(t => t.Word == word);
        Assert.Equal(original, text.Substring(token.Start, token.Length));
    }

    [Fact]
    public void A_hyphen_is_remembered_as_a_joint()
    {
        Assert.Equal([false, true, false, false], Tokens.Of("nest-box kit - cedar").Select(t => t.Joined));
        Assert.Equal([false], Tokens.Of("box").Select(t => t.Joined));
    }

    [Fact]
    public void Two_spellings_with_the_same_words_are_one_term() =>
        Assert.Equal(Tokens.Key(" Nest-Box,  kit!"), Tokens.Key("nest box kit"));

    [Fact]
    public void Offsets_are_right_whatever_the_text() =>
        Check.QuickThrowOnFailure(
            Prop.ForAll(
                Texts.Any.ToArbitrary(),
                text =>
                {
                    var last = 0;
                    foreach (var token in Tokens.Of(text))
                    {
                        // In order (½ gives two words that share one character), inside the text, not empty; and cutting the original there gives the same word again.
                        if (token.Start < last || token.Length <= 0 || token.End > text.Length)
                            return false;
                        last = token.Start;
                        var again = Tokens.Of(text.Substring(token.Start, token.Length)).Select(t => t.Word).ToList();
                        if (!again.Contains(token.Word))
                            return false;
                    }

                    return true;
                }
            )
        );

    [Fact]
    public void Cutting_the_key_again_changes_nothing() =>
        Check.QuickThrowOnFailure(Prop.ForAll(Texts.Any.ToArbitrary(), text => Tokens.Key(Tokens.Key(text)) == Tokens.Key(text)));
}

/// <summary>Made-up texts of the kind sellers write, with everything that makes cutting hard.</summary>
internal static class Texts
{
    private static readonly string[] Pieces =
    [
        "bird",
        "Bird",
        "house",
        "HOUSES",
        "birdhouse",
        "nest",
        "box",
        "boxes",
        "pájaros",
        "pa\u0301jaros",
        "women's",
        "women’s",
        "womens",
        "grey",
        "Gray",
        " ",
        "  ",
        "-",
        "–",
        ", ",
        ". ",
        "’",
        "'",
        "🏡",
        "❤️",
        "👩‍👧",
        "ﬁ",
        "½",
        "5x7",
        "1,300",
        "28.5",
        "…",
        "\n",
        "ß",
        "İ",
        "ｋｉｔ",
        "한글",
        "\u0301",
        "\u034f",
        "&",
        "for",
    ];

    public static Gen<string> Any { get; } = Gen.Elements(Pieces).ListOf().Select(p => string.Concat(p));
}
