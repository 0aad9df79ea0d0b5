using FsCheck;
using FsCheck.Fluent;
using TinRabbit.Core.Findings;
using TinRabbit.Core.Pages;
using TinRabbit.Core.Platforms;
using TinRabbit.Core.Words;

namespace TinRabbit.Core.Tests;

/// <summary>What is computed about pages of a web shop.</summary>
public class PagesTests
{
    private static readonly FactWords NestBox = new(
        "nest box",
        new Dictionary<Facet, IReadOnlyList<string>> { [Facet.Material] = ["cedar"], [Facet.Colour] = ["natural"] }
    );

    private static readonly Platform Web = Samples.Platform(Folds.Plural) with
    {
        Name = "Web shop",
        Fields =
        [
            new("heading", "Name", "heading", FieldShape.Line, true, null, 0.6, false, true, null, null, ", "),
            new("menuName", "Menu name", "menu", FieldShape.Line, false, null, 0, false, false, null, null, ", "),
            new(
                "pageTitle",
                "Page title",
                "title",
                FieldShape.Line,
                true,
                null,
                0.8,
                true,
                false,
                new(60, Unit.Characters, null) { MaxPixels = 580, FontSize = 20 },
                null,
                ", "
            ),
            new(
                "metaDescription",
                "Meta description",
                "meta",
                FieldShape.Text,
                false,
                null,
                0,
                false,
                false,
                new(155, Unit.Characters, null) { MaxPixels = 990, FontSize = 14 },
                null,
                " "
            ),
            new("slug", "URL slug", "slug", FieldShape.Line, true, null, 0.3, false, true, new(75, Unit.Characters, null), null, "-"),
            new("body", "Text", "body", FieldShape.Rich, true, null, 0.4, false, true, null, null, "\n"),
        ],
        Checks = new Dictionary<string, double>(),
    };

    [Theory]
    [InlineData("Cedar bird house", "cedar-bird-house")]
    [InlineData("Women’s pájaros shirt", "womens-pajaros-shirt")]
    [InlineData("5x7 print, 1,300 birds", "5x7-print-1300-birds")]
    [InlineData("Straße für Vögel", "strasse-fur-vogel")]
    [InlineData("…", "")]
    public void A_slug_is_made_of_the_words_in_plain_letters(string text, string slug) => Assert.Equal(slug, Slugs.Of(text, _ => false));

    [Fact]
    public void A_slug_that_is_taken_gets_a_number_and_is_cut_at_a_word()
    {
        Assert.Equal("bird-house-3", Slugs.Of("bird house", s => s is "bird-house" or "bird-house-2"));
        var words = string.Join(' ', Enumerable.Repeat("houses", 20));
        Assert.Equal(string.Join('-', Enumerable.Repeat("houses", 10)), Slugs.Of(words, _ => false));
        Assert.Equal(75, Slugs.Of(new string('a', 200), _ => false).Length);
    }

    [Fact]
    public void Every_slug_is_one_and_never_one_that_is_taken() =>
        Check.QuickThrowOnFailure(
            Prop.ForAll(
                ArbMap.Default.ArbFor<string?>(),
                text =>
                {
                    var taken = new HashSet<string>();
                    for (var i = 0; i < 12; i++)
                        if (Slugs.Of(text ?? "", taken.Contains) is { Length: > 0 } slug && !(Slugs.IsSlug(slug) && taken.Add(slug)))
                            return false;
                    return true;
                }
            )
        );

    [Fact]
    public void Chains_of_redirects_are_collapsed_and_circles_refused()
    {
        Assert.Equal("c", Redirects.Collapse([("a", "b"), ("b", "c")])["a"]);
        Assert.Throws<InvalidInputException>(() => Redirects.Collapse([("a", "b"), ("b", "a")]));
        Assert.Throws<InvalidInputException>(() => Redirects.Collapse([("a", "b"), ("a", "c")]));
    }

    [Fact]
    public void Collapsed_redirects_lead_to_no_old_slug() =>
        Check.QuickThrowOnFailure(
            Prop.ForAll(
                ArbMap.Default.ArbFor<byte[]>(),
                steps =>
                {
                    var ends = Redirects.Collapse([.. steps.Select((s, i) => ($"s{i}", $"s{i + 1 + (s % 4)}"))]);
                    return ends.Count == steps.Length && ends.Values.All(to => !ends.ContainsKey(to));
                }
            )
        );

    [Fact]
    public void A_width_is_the_sum_of_the_widths_of_the_characters()
    {
        Assert.Equal(PixelWidth.Of("A", 20) + PixelWidth.Of("b", 20), PixelWidth.Of("Ab", 20), 9);
        Assert.Equal(626 * 20 / 1000.0, PixelWidth.Of("A", 20), 9);
        Assert.True(PixelWidth.Of("iiii", 20) < PixelWidth.Of("WWWW", 20));
        Assert.Equal(PixelWidth.Usual * 20 / 1000.0, PixelWidth.Of("鳥", 20), 9);
        var text = "Cedar bird house";
        Assert.Equal(text.Length, PixelWidth.Cut(text, 20, PixelWidth.Of(text, 20)));
        Assert.Equal("Cedar bird".Length, PixelWidth.Cut(text, 20, PixelWidth.Of("Cedar bird …", 20)));
        Assert.Equal("Cedar".Length, PixelWidth.Cut(text, 20, PixelWidth.Of("Cedar bird …", 20) - 0.01));
        Assert.Equal(2, PixelWidth.Cut("AAAAAA", 20, PixelWidth.Of("AA …", 20)));
    }

    [Fact]
    public void A_body_is_read_as_blocks_links_and_pictures()
    {
        var body = RichBody.Read(
            "<h2>One &amp; two</h2><p>First <b>words</b>, <a href=\"page:12\">a page</a></p><ul><li>item</li></ul><script>no()</script><img src=x alt=' a box '>"
        );
        Assert.Equal([(2, "One & two"), (0, "First words, a page"), (0, "item")], body.Blocks.Select(b => (b.Level, b.Text)));
        Assert.Equal((12, "a page"), (body.Links[0].PageId, body.Links[0].Text));
        Assert.Equal("a box", body.Pictures[0].Alt);
        Assert.Equal("First words, a page", body.FirstParagraph);
        Assert.Null(new RichLink("https://x.example", "x").PageId);
    }

    [Fact]
    public void A_derived_description_ends_with_a_sentence_or_else_with_a_word()
    {
        var sentence = "A house for wrens that lasts. ";
        Assert.Equal("Short.", DerivedText.MetaDescription(RichBody.Read("<h2>No</h2><p>Short.</p>")));
        var many = DerivedText.MetaDescription(RichBody.Read($"<p>{string.Concat(Enumerable.Repeat(sentence, 9))}</p>"));
        Assert.EndsWith("lasts.", many);
        Assert.InRange(many.Length, 120, 155);
        Assert.EndsWith("word", DerivedText.MetaDescription(RichBody.Read($"<p>{string.Join(' ', Enumerable.Repeat("word", 90))}</p>")));
    }

    [Fact]
    public void The_lead_is_counted_in_any_form_and_in_the_first_paragraph()
    {
        var figures = BodyFigures.Of(Web, RichBody.Read("<h2>Nest boxes</h2><p>Our nest box is dry.</p><p>One more.</p>"), "nest box");
        Assert.Equal((9, 2, true), (figures.Words, figures.LeadUses, figures.LeadInFirst));
        Assert.Equal(200.0 / 9, figures.LeadRate, 6);
        Assert.Equal("Nest boxes", figures.Outline.Single().Text);
        Assert.False(BodyFigures.Of(Web, RichBody.Read("<p>Dry.</p><p>A nest box.</p>"), "nest box").LeadInFirst);
    }

    [Fact]
    public void Modifiers_narrow_the_head_of_the_lead()
    {
        Assert.Equal("house", Modifiers.HeadOf("cedar bird house"));
        Assert.Equal("nest box", Modifiers.HeadOf("wren nest box", NestBox));
        var found = Modifiers.Of("wren nest box", ["A large cedar nest box"], NestBox);
        Assert.Contains(found, m => m is { Word: "cedar", Term: "cedar nest box", IsUsed: true });
        Assert.Contains(found, m => m is { Word: "natural", IsUsed: false });
        Assert.DoesNotContain(found, m => m.Word is "nest" or "box" or "a");
    }

    [Fact]
    public void An_outline_nests_by_indentation_and_names_what_is_wrong_by_its_line()
    {
        var lines = Outline.Read("Bird houses\n  - Wren houses\n\tOwl boxes\n\nFeeders");
        Assert.Equal([("Bird houses", -1), ("Wren houses", 0), ("Owl boxes", 1), ("Feeders", -1)], lines.Select(l => (l.Name, l.Inside)));
        Assert.Equal(5, lines[^1].Number);
        Assert.Contains("Line 3", Assert.Throws<InvalidInputException>(() => Outline.Read("A\nB\na")).Message);
    }

    [Fact]
    public void The_page_with_most_grip_keeps_a_term_then_a_product_then_the_older_one()
    {
        PageHolding Page(int id, PageKind kind, string? lead, double grip) => new(id, kind, lead, [new("nest box", "nest box", 900, grip)]);
        var same = Clashes.Find([Page(1, PageKind.Category, "nest box", 0.7), Page(2, PageKind.Product, "nest box", 0.8)]);
        Assert.Equal((true, 2, 1), (same.Single().IsLead, same.Single().Keeper, same.Single().Others.Single()));
        Assert.Equal(3, Clashes.Find([Page(2, PageKind.Content, null, 0.7), Page(3, PageKind.Product, null, 0.7)]).Single().Keeper);
        Assert.Equal(4, Clashes.Find([Page(5, PageKind.Content, null, 0.7), Page(4, PageKind.Content, "x", 0.7)]).Single().Keeper);
        Assert.Empty(Clashes.Find([Page(1, PageKind.Category, null, 0.59), Page(2, PageKind.Product, null, 0.9)]));
        Assert.Empty(
            Clashes.Find([
                new(1, PageKind.Category, null, [new("x", "x", null, 0.9)]),
                new(2, PageKind.Category, null, [new("x", "x", null, 0.9)]),
            ])
        );
    }

    [Theory]
    [InlineData("cedar nest box", PageKind.Product)]
    [InlineData("how to clean a nest box", PageKind.Content)]
    [InlineData("bat box", PageKind.Category)]
    [InlineData("oak nest box", null)]
    [InlineData("garden shed", null)]
    public void A_term_without_a_page_needs_one_of_a_kind(string term, PageKind? kind)
    {
        var bat = new FactWords("bat box", new Dictionary<Facet, IReadOnlyList<string>>());
        Assert.Equal(kind, PageNeed.KindFor(term, term == "bat box" ? [bat, bat] : [NestBox]));
    }

    [Fact]
    public void A_pattern_fills_in_what_is_known_and_leaves_no_punctuation_alone()
    {
        var values = new Dictionary<string, string> { ["lead"] = "nest box", ["colour"] = "natural" };
        Assert.Equal("Nest box, natural", AltPattern.Fill("{what it shows}, {lead}, {colour}, {brand}", values));
        Assert.Equal("", AltPattern.Fill("{brand}", values));
        Assert.Contains("{colours}", Assert.Throws<InvalidInputException>(() => AltPattern.Fill("{colours}", values)).Message);
    }

    [Theory]
    [InlineData("", AltProblem.Missing)]
    [InlineData("Picture of a nest box", AltProblem.Opening)]
    [InlineData("nest box, bird house, wren house", AltProblem.Strung)]
    [InlineData("A white nest box", AltProblem.Claim)]
    [InlineData("A nest box, only €34.50", AltProblem.Advert)]
    [InlineData("A nest box, 20% off", AltProblem.Advert)]
    [InlineData("A nest box, sold out", AltProblem.Advert)]
    [InlineData("A gorgeous nest box", AltProblem.Advert)]
    public void An_alt_text_is_told_what_is_wrong_with_it(string alt, AltProblem problem)
    {
        var picks = new HashSet<string> { "nest box", "bird house", "wren house" };
        Assert.Contains(problem, AltTexts.ProblemsOf(alt, 125, picks, NestBox));
        Assert.Empty(AltTexts.ProblemsOf("A wren at the door of a cedar nest box", 125, picks, NestBox));
        // Numbers that are no sum of money, and a word that begins as one of praise.
        Assert.Null(AltTexts.AdvertIn("A great tit at a stock dove's hole"));
        Assert.Null(AltTexts.AdvertIn("The 28 mm door of box 3, with a greatcoat and stock fencing behind it"));
        Assert.Contains(AltProblem.TooLong, AltTexts.ProblemsOf(new string('a', 126), 125, picks, null));
    }

    private static readonly Dictionary<string, string> Good = new()
    {
        ["heading"] = "Wren nest box",
        ["pageTitle"] = "Wren nest box of cedar for gardens",
        ["metaDescription"] =
            "Order a wren nest box of western red cedar. It is dry, easy to clean in autumn, and small enough to keep every larger bird away.",
        ["slug"] = "wren-nest-box",
        ["body"] =
            "<p>This wren nest box is dry. A wren nest box lasts.</p><p><a href=\"page:2\">More</a> <a href=\"https://birds.example\">about wrens</a></p>",
    };

    private static string[] Found(string key, string? value, PageToCheck? page = null, params string[] pictures)
    {
        var copy = new Dictionary<string, FieldValue>();
        foreach (var (field, text) in Good)
            copy[field] = new FieldValue.Text(field == key ? value ?? "" : text);
        var check =
            page
            ?? new PageToCheck(PageKind.Content)
            {
                Brand = "Plover",
                TitleSuffix = " – Plover",
                Published = new HashSet<int> { 2 },
            };
        return
        [
            .. ListingCheck
                .Check(
                    new(Web, copy, [new("wren nest box", 900)], "wren nest box", null, [], null, []) { Page = check, Pictures = pictures }
                )
                .Findings.Select(f => f.Id),
        ];
    }

    [Fact]
    public void A_good_page_has_no_finding() => Assert.Empty(Found("", null, null, "A wren nest box in an apple tree"));

    [Theory]
    [InlineData("pageTitle", "", "page-title-empty")]
    [InlineData("pageTitle", "Wren nest box", "page-title-short")]
    [InlineData("pageTitle", "Wren nest box of cedar for gardens and for balconies, small", "page-title-long")]
    [InlineData("pageTitle", "Wren nest box WWWWWWWWWWWWWWWWWWWWWW MMM", "page-title-wide")]
    [InlineData("pageTitle", "Cedar garden home, wren nest box", "page-title-lead-late")]
    [InlineData("pageTitle", "A small home of cedar for gardens", "lead-not-whole")]
    [InlineData("metaDescription", "", "meta-empty")]
    [InlineData("metaDescription", "Order a wren nest box.", "meta-short")]
    [InlineData("metaDescription", "The wren nest box.", "meta-verb")]
    [InlineData("metaDescription", "Order it now.", "meta-lead")]
    [InlineData("slug", "Wren_Box", "slug-form")]
    [InlineData("slug", "12", "slug-lead")]
    [InlineData("heading", "Our box", "heading-lead")]
    [InlineData("body", "<h1>Top</h1><p>A wren nest box and a wren nest box.</p>", "second-heading")]
    [InlineData("body", "<p>Dry.</p><p>A wren nest box and a wren nest box.</p>", "lead-not-first")]
    [InlineData("body", "<p>A wren nest box.</p>", "lead-few")]
    [InlineData("body", "<p>A wren nest box and a wren nest box.</p>", "no-inner-link")]
    [InlineData("body", "<p>A wren nest box, a wren nest box <a href=\"page:3\">gone</a></p>", "dead-link")]
    public void Each_fault_of_a_page_is_found(string field, string value, string id) =>
        Assert.Contains(id, Found(field, value, null, "A wren nest box"));

    [Fact]
    public void Thresholds_depend_on_the_kind_of_page_and_other_pages_count()
    {
        Assert.Contains("body-short", Found("", null, new(PageKind.Product)));
        Assert.DoesNotContain("body-short", Found("", null, new(PageKind.Content)));
        Assert.Contains("slug-taken", Found("", null, new(PageKind.Content) { SlugTakenBy = "Boxes" }));
        Assert.Contains("same-lead", Found("", null, new(PageKind.Content) { SameLead = ["Boxes"] }));
        Assert.Contains("menu-long", Found("heading", "Wren nest box and many other things", new(PageKind.Category)));
        Assert.Contains("page-title-brand", Found("", null, new(PageKind.Content) { Brand = "Plover" }));
    }

    [Fact]
    public void Pictures_of_a_page_are_checked_together()
    {
        Assert.Contains("alt-missing", Found("", null, null, "A wren nest box", ""));
        Assert.Contains("alt-same", Found("", null, null, "Our work", "our work"));
        Assert.Contains("alt-lead", Found("", null, null, "Our work"));
        Assert.Contains("alt-opening", Found("", null, null, "Picture of a wren nest box"));
        Assert.Contains("alt-advert", Found("", null, null, "A wren nest box, in stock"));
        Assert.Contains("alt-long", Found("", null, null, "A wren nest box " + new string('a', 120)));
    }

    [Fact]
    public void A_picture_is_large_enough_or_told_and_a_locked_alt_text_is_left_alone()
    {
        PageToCheck WithSides(params int?[] sides) => new(PageKind.Content) { PictureSides = sides };
        Assert.Contains("picture-small", Found("", null, WithSides(799), "A wren nest box"));
        Assert.DoesNotContain("picture-small", Found("", null, WithSides(800, null), "A wren nest box", "Its door"));
        var copy = Good.ToDictionary(g => g.Key, g => (FieldValue)new FieldValue.Text(g.Value));
        string[] Of(IReadOnlySet<int> locked) =>
            [
                .. ListingCheck
                    .Check(
                        new(Web, copy, [new("wren nest box", 900)], "wren nest box", null, [], null, [])
                        {
                            Page = new(PageKind.Content),
                            Pictures = ["red, in stock", "A wren nest box"],
                            LockedPictures = locked,
                        }
                    )
                    .Findings.Where(f => f.Id.StartsWith("alt-", StringComparison.Ordinal))
                    .Select(f => f.Id),
            ];
        Assert.Equal(["alt-advert"], Of(new HashSet<int>()));
        Assert.Empty(Of(new HashSet<int> { 0 }));
    }

    [Fact]
    public void A_category_may_have_no_text_and_should_not_share_its_name()
    {
        Assert.Contains("category-text", Found("body", "", new(PageKind.Category)));
        Assert.DoesNotContain("required-empty", Found("body", "", new(PageKind.Category)));
        Assert.Contains("required-empty", Found("body", "", new(PageKind.Product)));
        Assert.Contains("same-name", Found("", null, new(PageKind.Category) { SameName = ["Gifts"] }));
        Assert.DoesNotContain("same-name", Found("", null, new(PageKind.Category)));
    }

    [Fact]
    public void Fixes_of_a_page_settle_what_they_are_about()
    {
        foreach (
            var (field, value) in new[]
            {
                ("pageTitle", ""),
                ("slug", "Bad Slug"),
                ("body", "<h1>Top</h1><p>A wren nest box and a wren nest box.</p>"),
                ("pageTitle", "Cedar garden home, wren nest box"),
            }
        )
        {
            var copy = Good.ToDictionary(g => g.Key, g => (FieldValue)new FieldValue.Text(g.Key == field ? value : g.Value));
            ListingToCheck Draft(Dictionary<string, FieldValue> texts) =>
                new(Web, texts, [new("wren nest box", 900)], "wren nest box", null, [], null, [])
                {
                    Page = new PageToCheck(PageKind.Content) { Parent = (2, "Boxes") },
                };
            foreach (var finding in ListingCheck.Check(Draft(copy)).Findings.Where(f => f.Field == field && f.Fix is not null))
                Assert.DoesNotContain(
                    ListingCheck.Check(Draft(new(copy) { [field] = finding.Fix!.Value })).Findings,
                    f => f.Id == finding.Id
                );
        }
    }
}
