using System.Text;
using System.Text.RegularExpressions;
using FsCheck;
using FsCheck.Fluent;
using TinRabbit.Core.Matching;
using TinRabbit.Core.Measures;
using TinRabbit.Core.Platforms;
using TinRabbit.Core.Words;

namespace TinRabbit.Core.Tests;

/// <summary>Laws of words, room and norms, each held against a slow and plain way of saying the same.</summary>
public partial class WordLawsTests
{
    private static readonly string[] Bits =
    [
        "bird",
        "House",
        "É",
        "e\u0301",
        "ß",
        "İ",
        "ﬁ",
        "5",
        "٣",
        "½",
        "'",
        "’",
        "ʼ",
        ".",
        ",",
        "-",
        "‐",
        " ",
        "\n",
        "\u00A0",
        "🐦",
        "𝔟",
        "鳥",
        "の",
        "_",
        "&",
        "\u200D",
        "\u0301",
        "ς",
        "'s",
        "1,000",
        "3.",
        "(",
        "…",
    ];

    private static readonly Gen<string> Text = Gen.Choose(0, 12).SelectMany(n => Gen.Elements(Bits).ListOf(n)).Select(string.Concat);

    // The definition: NFKC, the curled apostrophes made plain, lower case; letters, marks and digits; what stays inside.
    [GeneratedRegex(@"[\p{L}\p{M}\p{Nd}]+(?:(?:(?<=\p{L})'(?=\p{L})|(?<=\p{Nd})[.,](?=\p{Nd}))[\p{L}\p{M}\p{Nd}]+)*")]
    private static partial Regex Word();

    [Fact]
    public void Words_are_those_of_the_definition() =>
        Check.One(
            Config.QuickThrowOnFailure.WithMaxTest(3000),
            Prop.ForAll(
                Text.ToArbitrary(),
                text =>
                {
                    // Beyond the plane that the pattern speaks of, letters are told by their category alone.
                    var plain = text.Replace("𝔟", "b", StringComparison.Ordinal);
                    var normal = plain
                        .Normalize(NormalizationForm.FormKC)
                        .Replace('’', '\'')
                        .Replace('ʼ', '\'')
                        .Replace('‘', '\'')
                        .ToLowerInvariant();
                    Assert.Equal(Word().Matches(normal).Select(m => m.Value), Tokens.Of(text).Select(t => t.Word));
                }
            )
        );

    [Fact]
    public void A_key_is_the_key_of_itself() =>
        Check.One(
            Config.QuickThrowOnFailure.WithMaxTest(1000),
            Prop.ForAll(Text.ToArbitrary(), text => Tokens.Key(Tokens.Key(text)) == Tokens.Key(text))
        );

    [Fact]
    public void What_a_word_is_compared_by_is_compared_by_itself()
    {
        string[] words =
        [
            .. WordData.Lines("compounds.txt"),
            .. Spelling.Pairs.Select(p => p.American),
            .. Spelling.Pairs.Select(p => p.British),
            "women's",
            "boxes",
            "pájaros",
            "niños",
            "leaves",
        ];
        foreach (
            var folds in (Folds[])
                [Folds.None, Folds.Diacritics, Folds.Diacritics | Folds.Possessive, Folds.Diacritics | Folds.Possessive | Folds.Spelling]
        )
            Assert.All(words, w => Assert.Equal(Fold.Key(w, folds), Fold.Key(Fold.Key(w, folds), folds)));
    }

    [Fact]
    public void More_folds_part_no_words_that_fewer_take_as_the_same()
    {
        string[] words =
        [
            .. WordData.Lines("compounds.txt").Take(1500),
            .. Spelling.Pairs.SelectMany(p => new[] { p.American, p.British, p.American + "s", p.British + "s" }),
        ];
        var few = words.GroupBy(w => Fold.Key(w, Folds.Spelling)).Where(g => g.Count() > 1).ToList();
        Assert.NotEmpty(few);
        Assert.All(
            few,
            same =>
                Assert.True(
                    same.Select(w => Fold.Key(w, Folds.Spelling | Folds.Diacritics | Folds.Possessive)).Distinct().Count() == 1,
                    string.Join(", ", same)
                )
        );
    }

    [Fact]
    public void A_compound_splits_into_halves_that_join_again() =>
        Assert.All(
            WordData.Lines("compounds.txt"),
            word =>
            {
                if (Fold.Split(word) is not var (first, second))
                    return;
                Assert.Equal(word, first + second);
                Assert.Equal(word, Fold.Join(Tokens.Of($"{first} {second}")[0], Tokens.Of($"{first} {second}")[1]));
            }
        );

    [Fact]
    public void Room_is_what_one_would_count() =>
        Check.One(
            Config.QuickThrowOnFailure.WithMaxTest(1000),
            Prop.ForAll(
                Text.ToArbitrary(),
                text =>
                    TextLength.Of(text, Unit.Characters) == text.EnumerateRunes().Count()
                    && TextLength.Of(text, Unit.Bytes) == Encoding.UTF8.GetByteCount(text)
                    && TextLength.Of(text, Unit.Words) == Tokens.Of(text).Count
            )
        );

    [Fact]
    public void The_first_characters_end_where_as_many_are_counted() =>
        Check.One(
            Config.QuickThrowOnFailure.WithMaxTest(1000),
            Prop.ForAll(
                (from text in Text from first in Gen.Choose(0, 30) select (text, first)).ToArbitrary(),
                c =>
                {
                    var end = TextLength.OffsetOf(c.text, c.first);
                    return TextLength.Of(c.text[..end], Unit.Characters) == Math.Min(c.first, TextLength.Of(c.text, Unit.Characters));
                }
            )
        );

    [Fact]
    public void What_is_avoided_is_found_in_any_form_and_any_field_and_nothing_else_is() =>
        Check.One(
            Config.QuickThrowOnFailure.WithMaxTest(500),
            Prop.ForAll(
                (
                    from words in Gen.Choose(0, 6)
                        .SelectMany(n =>
                            Gen.Elements("bird", "birds", "Bird's", "house", "houses", "box", "boxes", "pájaro", "pajaros").ListOf(n)
                        )
                    from avoid in Gen.Choose(1, 2).SelectMany(n => Gen.Elements("bird", "house", "box", "pájaro").ListOf(n))
                    from field in Gen.Elements("title", "description", "notes")
                    select (text: string.Join(' ', words), avoid: string.Join(' ', avoid), field)
                ).ToArbitrary(),
                c =>
                {
                    const Folds forms = Folds.Diacritics | Folds.Possessive | Folds.Plural;
                    string[] Keys(string text) => [.. Tokens.Of(text).Select(t => Fold.Key(t.Word, forms))];
                    var (words, phrase) = (Keys(c.text), Keys(c.avoid));
                    var uses = Enumerable
                        .Range(0, Math.Max(0, words.Length - phrase.Length + 1))
                        .Count(at => words[at..(at + phrase.Length)].SequenceEqual(phrase));
                    var avoided = new AvoidedTerms(Samples.Platform(Folds.None), [c.avoid]);
                    var spans = avoided.FindIn(Samples.Copy((c.field, c.text))).SelectMany(u => u.Spans).ToList();
                    Assert.Equal(uses, spans.Count);
                    Assert.Equal(uses, avoided.UsesIn(c.text));
                    Assert.All(spans, s => Assert.Equal(phrase, Keys(c.text.Substring(s.Start, s.Length))));
                }
            )
        );

    [Fact]
    public void A_norm_is_the_median_and_the_thirds_of_what_is_sorted() =>
        Check.One(
            Config.QuickThrowOnFailure.WithMaxTest(300),
            Prop.ForAll(
                (
                    from n in Gen.Choose(0, 60)
                    from volumes in Gen.Elements<double?>(null, 0, 1, 50, 900, 12000).ListOf(n)
                    from competitions in Gen.Elements<double?>(null, 0, 3, 80, 700, 9000).ListOf(n)
                    select volumes.Zip(competitions).ToArray()
                ).ToArbitrary(),
                readings =>
                {
                    var norm = MarketStatistics.Compute([.. readings.Select(r => new ReadingNumbers(r.First, r.Second))]);
                    double[] ratios =
                    [
                        .. readings
                            .Where(r => r.First > 0 && r.Second is not null)
                            .Select(r => Math.Log10(r.First!.Value / Math.Max(1, r.Second!.Value)))
                            .Order(),
                    ];
                    double[] competitions = [.. readings.Where(r => r.Second is not null).Select(r => r.Second!.Value).Order()];
                    Assert.Equal(readings.Length, norm.Readings);
                    if (ratios.Length == 0)
                        Assert.Null(norm.Centre);
                    else
                        Assert.Equal((ratios[(ratios.Length - 1) / 2] + ratios[ratios.Length / 2]) / 2, norm.Centre!.Value, 9);
                    Assert.Equal(competitions.Length == 0, norm.LowTo is null);
                    foreach (var c in competitions)
                    {
                        // A third of them is no higher than the first border, two thirds than the second; equals are of one band.
                        var band = norm.BandOf(c)!.Value;
                        Assert.Equal(
                            band,
                            c <= competitions[(int)Math.Ceiling(competitions.Length / 3.0) - 1] ? Band.Low
                                : c <= competitions[(int)Math.Ceiling(competitions.Length * 2 / 3.0) - 1] ? Band.Medium
                                : Band.High
                        );
                    }

                    Assert.Null(norm.BandOf(null));
                }
            )
        );
}
