using TinRabbit.Core.Findings;
using TinRabbit.Core.Measures;
using TinRabbit.Core.Platforms;
using TinRabbit.Core.Words;

namespace TinRabbit.Core.Tests;

/// <summary>Each finding of the list, with a listing that has it and one that does not.</summary>
public class FindingsTests
{
    private static readonly Platform Fair = Made(Folds.Diacritics);

    private static Platform Made(Folds folds) =>
        Samples.Platform(folds) with
        {
            Name = "the fair",
            Spelling = "en-US",
            Fields =
            [
                new("title", "Title", "title", FieldShape.Line, true, null, 0.8, true, true, new(60, Unit.Characters, null), 30, ", "),
                new("tags", "Tags", "tags", FieldShape.Phrases, true, null, 0.6, false, false, new(20, Unit.Characters, 4), null, ", "),
                new("backend", "Backend", "backend", FieldShape.Words, true, null, 0.4, false, false, new(40, Unit.Bytes, null), null, " "),
                new("description", "Description", "body", FieldShape.Text, true, null, 0.2, false, false, null, null, "\n"),
                new("category", "Category", "category", FieldShape.Path, true, null, 0.2, false, false, null, null, ", ")
                {
                    Tree = [new("Garden", [new("Birds", [new("Nest boxes", [])])])],
                },
                new("attributes", "Attributes", "attributes", FieldShape.Choices, true, null, 0.2, false, false, null, null, ", ")
                {
                    Attributes = [new("Colour", [], null), new("Hole size", ["28 mm"], "Nest boxes")],
                },
            ],
            Banned = ["free shipping"],
            Checks = new Dictionary<string, double> { ["descriptionMinWords"] = 12, ["shopNameInTags"] = 1 },
        };

    private static readonly FactWords Facts = new(
        "nest box",
        new Dictionary<Facet, IReadOnlyList<string>> { [Facet.Material] = ["cedar"], [Facet.Colour] = ["natural"] }
    );

    private const string GoodTitle = "Cedar nest box for wrens, garden bird house with brass bell";
    private const string GoodDescription =
        "This cedar nest box keeps wrens warm. It hangs from any branch, drains well and opens at the front for cleaning.";

    private static ListingToCheck Listing(
        string title = GoodTitle,
        string[]? tags = null,
        string backend = "robin roost cosy shelter for small finch",
        string description = GoodDescription,
        string[]? category = null,
        Platform? platform = null,
        string[]? avoid = null,
        FactWords? facts = null,
        string? lead = "cedar nest box",
        WantedTerm[]? terms = null,
        AttributeShare[]? rivals = null,
        string? shop = "Plover & Pine"
    )
    {
        var copy = new Dictionary<string, FieldValue>
        {
            ["title"] = new FieldValue.Text(title),
            ["tags"] = new FieldValue.Items(tags ?? ["cedar nest box", "wren house", "plover and pine", "bird house"]),
            ["backend"] = new FieldValue.Text(backend),
            ["description"] = new FieldValue.Text(description),
            ["category"] = new FieldValue.Items(category ?? ["Garden", "Birds", "Nest boxes"]),
            ["attributes"] = new FieldValue.Choices(new Dictionary<string, IReadOnlyList<string>> { ["Colour"] = ["natural"] }),
        };
        return new(
            platform ?? Fair,
            copy,
            terms ?? [new("cedar nest box", 900), new("bird house", 400, Fit: Fit.Good)],
            lead,
            facts,
            [.. (avoid ?? []).Select(a => new AvoidedTerm(a, "not true"))],
            shop,
            rivals ?? []
        );
    }

    private static string[] Ids(ListingToCheck draft) => [.. ListingCheck.Check(draft).Findings.Select(f => f.Id)];

    private static Finding The(string id, ListingToCheck draft) => Assert.Single(ListingCheck.Check(draft).Findings, f => f.Id == id);

    private static string? Fixed(Finding finding) =>
        finding.Fix?.Value switch
        {
            FieldValue.Text t => t.Value,
            FieldValue.Items i => string.Join(" | ", i.Values),
            _ => null,
        };

    [Fact]
    public void A_good_listing_has_no_finding() =>
        Assert.Empty(
            Ids(
                Listing(
                    facts: Facts with
                    {
                        ByFacet = new Dictionary<Facet, IReadOnlyList<string>>(Facts.ByFacet)
                        {
                            [Facet.Material] = ["cedar", "brass"],
                            [Facet.Size] = ["small"],
                        },
                    }
                )
            )
        );

    [Fact]
    public void What_is_over_its_limit_must_change_and_is_cut_at_a_word()
    {
        var over = The("over-limit", Listing(title: GoodTitle + " and hook"));
        Assert.Equal((Level.Must, 59, 9), (over.Level, over.Start, over.Length));
        Assert.Equal(GoodTitle, Fixed(over));
        Assert.Equal(
            1,
            The("over-limit", Listing(tags: ["cedar nest box", "a wren house for the garden", "plover and pine", "bird house"])).Item
        );
        Assert.Contains("5 of at most 4", The("over-items", Listing(tags: ["a", "b", "plover pine", "c", "d"])).Why);
        Assert.Contains("bytes", The("over-limit", Listing(backend: "pájaro ñandú áéíóú áéíóú áéíóú áéí")).Why);
    }

    [Fact]
    public void What_is_needed_and_empty_must_be_filled() => Assert.Equal(Level.Must, The("required-empty", Listing(title: " ")).Level);

    [Theory]
    [InlineData("cedar nest box wren bird house garden bell", "title", true)]
    [InlineData("cedar nest box wren bird house garden bell 45", "title", false)]
    [InlineData("cedar nest box", "backend", true)]
    public void More_than_a_quarter_unused_is_said(string text, string field, bool said) =>
        Assert.Equal(
            said,
            ListingCheck
                .Check(field == "title" ? Listing(title: text) : Listing(backend: text))
                .Findings.Any(f => f.Id == "unused" && f.Field == field)
        );

    [Fact]
    public void The_lead_stands_whole_and_where_it_is_seen()
    {
        Assert.Equal(
            "Cedar nest box for wrens, garden bird house, bell",
            Fixed(The("lead-not-whole", Listing(title: "Cedar box for wrens, nest garden bird house, bell")))
        );
        var late = The("lead-not-shown", Listing(title: "Garden bird house with brass bell, cedar nest box"));
        Assert.Equal("Cedar nest box, Garden bird house with brass bell", Fixed(late));
        Assert.DoesNotContain("lead-not-whole", Ids(Listing(lead: null, title: "Garden bird house with a brass bell and hook, oak")));
    }

    [Fact]
    public void What_it_is_stands_early()
    {
        Assert.Contains(
            "nest box",
            The("what-late", Listing(title: "Garden gift with bell for wrens, cedar nest box, bird house", facts: Facts)).Why
        );
        Assert.DoesNotContain(
            "what-late",
            Ids(Listing(title: "Two cedar nest boxes for wrens, garden bird house, cedar nest box", facts: Facts))
        );
    }

    [Fact]
    public void A_word_said_twice_is_said_and_another_form_is_another_word_where_search_is_literal()
    {
        var twice = The("title-repeat", Listing(title: "Cedar nest box for wrens, bird house, cedar garden bell"));
        Assert.Equal(("Keep the first", "Cedar nest box for wrens, bird house, garden bell"), (twice.Fix!.Label, Fixed(twice)));
        const string forms = "Cedar nest box for wrens, bird house, nest boxes with bells";
        Assert.DoesNotContain("title-repeat", Ids(Listing(title: "Cedar nest box, bird house for wrens, boxes with brass bell")));
        Assert.Equal(2, Ids(Listing(title: forms, platform: Made(Folds.Plural))).Count(i => i == "title-repeat"));
        Assert.Contains("6 characters would be free", twice.Why);
        // A repeat that makes a pick exact is no finding.
        Assert.DoesNotContain(
            "title-repeat",
            Ids(
                Listing(
                    title: "Cedar nest box, wren nest box, bird house with a brass bell",
                    terms: [new("cedar nest box", 900), new("wren nest box", 400)]
                )
            )
        );
    }

    [Theory]
    [InlineData(
        "Garden bird house, garden bell for wrens, nest box",
        "Garden bird house, bell for wrens, nest box",
        "Bird house, garden bell for wrens, nest box"
    )]
    [InlineData(
        "Nest box, small bird house, wren roost, small",
        "Nest box, small bird house, wren roost",
        "Nest box, bird house, wren roost, small"
    )]
    [InlineData("Cedar wren nest box, bird house, 28 mm hole wren houses", null, null)] // neither can go: “hole houses” is no phrase
    [InlineData("Nest box for wrens, house for wrens and owls", null, null)] // “for and owls”
    [InlineData("Cedar nest box, cedar-clad bird house", null, null)] // half of a joined word
    [InlineData("Cedar nest box for robins, bird house, cedar garden bell", "Cedar nest box for robins, bird house, garden bell", null)] // the lead stays whole
    public void A_repeat_goes_only_where_the_rest_still_reads_well(string title, string? first, string? last)
    {
        var found = ListingCheck.Check(Listing(title: title)).Findings.Where(f => f.Id == "title-repeat").ToList();
        Assert.NotEmpty(found);
        var fixes = found
            .SelectMany(f => f.OtherFixes.Prepend(f.Fix))
            .OfType<Fix>()
            .ToLookup(f => f.Label, f => ((FieldValue.Text)f.Value).Value);
        Assert.Equal(first is null ? [] : [first], fixes["Keep the first"]);
        Assert.Equal(last is null ? [] : [last], fixes["Keep the last"]);
    }

    [Theory]
    [InlineData("A little different from the rest, made in our small workshop", false)]
    [InlineData("A small nest box for little birds", true)]
    public void A_common_phrase_claims_nothing(string description, bool claims) =>
        Assert.Equal(
            claims,
            ListingCheck
                .Check(Listing(facts: Facts, description: description))
                .Findings.Any(f => f is { Id: "claim", Field: "description" })
        );

    [Fact]
    public void A_claim_has_one_key_wherever_it_is_made()
    {
        var claims = ListingCheck
            .Check(Listing(tags: ["white nest box"], facts: Facts, description: GoodDescription + " White inside."))
            .Findings.Where(f => f.Claim is { Word: "white" or "White" })
            .ToList();
        Assert.Equal(["description", "tags"], claims.Select(f => f.Field).Order());
        Assert.Single(claims.Select(f => f.Key).Distinct());
        Assert.Equal(Facet.Colour, claims[0].Claim!.Facet);
    }

    [Fact]
    public void Tags_do_not_repeat_each_other_and_one_says_the_shop()
    {
        Assert.Equal(
            "cedar nest box | plover and pine",
            Fixed(The("same-tag", Listing(tags: ["cedar nest box", "Cedar Nest-Box", "plover and pine"])))
        );
        Assert.Contains(
            "same words as “bird house”",
            The("tag-reordered", Listing(tags: ["bird house", "house bird", "plover and pine"])).Why
        );
        Assert.Equal("bird house | plover pine", Fixed(The("shop-name", Listing(tags: ["bird house", ""]))));
        Assert.DoesNotContain("shop-name", Ids(Listing(tags: ["bird house"], shop: null)));
    }

    [Fact]
    public void What_is_avoided_or_banned_must_go_from_every_field()
    {
        var findings = ListingCheck
            .Check(
                Listing(
                    avoid: ["bluebird"],
                    description: GoodDescription + " Bluebirds too.",
                    tags: ["bluebird house", "plover pine", "bird house"]
                )
            )
            .Findings.Where(f => f.Id == "avoided")
            .ToList();
        Assert.Equal(["description", "tags"], findings.Select(f => f.Field).Order());
        Assert.All(findings, f => Assert.Equal(Level.Must, f.Level));
        Assert.Contains("not true", findings[0].Why);
        Assert.Equal("plover pine | bird house", Fixed(findings.Single(f => f.Field == "tags")));
        Assert.Equal(GoodDescription + " to you.", Fixed(The("banned", Listing(description: GoodDescription + " Free shipping to you."))));
    }

    [Fact]
    public void A_claim_that_the_facts_lack_is_called_out_with_its_words()
    {
        var draft = Listing(
            tags: ["white nest box", "plover and pine"],
            facts: Facts,
            description: GoodDescription.Replace("cedar", "oak")
        );
        var claims = ListingCheck.Check(draft).Findings.Where(f => f.Id == "claim").Select(f => (f.Field, f.Why.Split('”')[0])).ToList();
        Assert.Contains(("tags", "“white"), claims);
        Assert.Contains(("description", "“oak"), claims);
        Assert.DoesNotContain(claims, c => c.Item2.Contains("ine")); // Pine is the shop's name
        Assert.DoesNotContain("claim", Ids(Listing(tags: ["white nest box"])));
    }

    [Fact]
    public void What_must_not_be_said_must_not_be_said_of_a_picture_either()
    {
        var draft = Listing(avoid: ["bluebird"], facts: Facts) with
        {
            Pictures = ["A cedar box", "A white box with two Bluebirds, free shipping"],
        };
        var found = ListingCheck.Check(draft).Findings.Where(f => f.Field == ListingToCheck.PicturesKey).ToList();
        Assert.Equal(["avoided", "banned", "claim"], found.Select(f => f.Id).Order());
        Assert.All(found, f => Assert.Equal(1, f.Item));
        Assert.Equal("A cedar box | A white box with two, free shipping", Fixed(found.Single(f => f.Id == "avoided")));
        // What was put aside stays so while the words stand, whatever else is written there.
        Assert.Equal(
            found.Single(f => f.Id == "claim").Key,
            ListingCheck
                .Check(draft with { Pictures = ["A white box"] })
                .Findings.Single(f => f.Id == "claim" && f.Field == ListingToCheck.PicturesKey)
                .Key
        );
        // A platform that has a field for them checks that field, and only that.
        var own = Fair with
        {
            Fields = [.. Fair.Fields, new("alt", "Alt text", "alt", FieldShape.Lines, true, null, 0.2, false, false, null, null, "\n")],
        };
        Assert.DoesNotContain(
            ListingCheck.Check(Listing(platform: own, avoid: ["bluebird"]) with { Pictures = draft.Pictures }).Findings,
            f => f.Field == ListingToCheck.PicturesKey
        );
    }

    [Fact]
    public void Capitals_shout_only_where_there_are_several()
    {
        Assert.DoesNotContain("shouting", Ids(Listing(title: "CEDAR nest box for wrens, garden bird house with brass bell")));
        Assert.Equal(
            "Cedar nest box for wrens, garden bird house with brass bell",
            Fixed(The("shouting", Listing(title: "Cedar NEST box for WRENS, garden bird house with BRASS bell")))
        );
    }

    [Theory]
    [InlineData("A nest box for wrens.", "description-short")]
    [InlineData(GoodTitle + ". " + GoodDescription, "begins-with-title")]
    [InlineData(GoodDescription + " Cedar nest box, bird house, nice.", "list-of-picks")]
    [InlineData("This is for wrens and for you. It hangs anywhere you like. A cedar nest box is warm and dry all year.", "opening-no-core")]
    public void A_description_says_something_from_its_first_sentence(string description, string id)
    {
        The(id, Listing(description: description));
        Assert.DoesNotContain(id, Ids(Listing()));
    }

    [Fact]
    public void A_term_too_often_reads_as_stuffing()
    {
        Assert.Contains(
            "4 times",
            The("stuffed", Listing(description: string.Concat(Enumerable.Repeat("The cedar nest box hangs in a tree and is dry. ", 4)))).Why
        );
        Assert.DoesNotContain(
            "stuffed",
            Ids(Listing(description: string.Concat(Enumerable.Repeat("The cedar nest box hangs in a tree and is dry. ", 3))))
        );
    }

    [Fact]
    public void One_copy_has_one_spelling()
    {
        var mixed = The("mixed-spelling", Listing(description: GoodDescription + " Its colour is natural, never gray."));
        Assert.Equal(GoodDescription + " Its color is natural, never gray.", Fixed(mixed));
        Assert.DoesNotContain("mixed-spelling", Ids(Listing(tags: ["grey box", "gray box", "plover pine"])));
    }

    [Fact]
    public void A_category_goes_as_deep_as_it_can_and_opens_attributes()
    {
        Assert.Contains("They add Hole size", The("category-deeper", Listing(category: ["Garden", "Birds"])).Why);
        Assert.Equal(Level.Must, The("category-unknown", Listing(category: ["Kitchen"])).Level);
        var rivals = new AttributeShare[] { new("Hole size", 0.8), new("Colour", 0.9), new("Weight", 0.2) };
        var empty = ListingCheck
            .Check(Listing(rivals: [new("Hole size", 0.8), new("Weight", 0.9)], category: ["Garden", "Birds", "Nest boxes"]))
            .Findings.Where(f => f.Id == "attribute-empty")
            .ToList();
        Assert.Equal(empty.Count, empty.Select(f => f.Key).Distinct().Count());
        Assert.Contains("80 of the top 100", The("attribute-empty", Listing(rivals: rivals)).Why);
        Assert.DoesNotContain("attribute-empty", Ids(Listing(rivals: rivals, category: ["Garden", "Birds"])));
    }

    [Fact]
    public void Words_that_would_fit_are_named_with_what_they_open()
    {
        var fits = The(
            "would-fit",
            Listing(backend: "cosy", terms: [new("owl nest box", 700), new("bat box", 9000, Fit: Fit.Core)], avoid: ["bat"])
        );
        Assert.Equal("cosy owl", Fixed(fits));
        Assert.True(fits.Cost > 0);
        Assert.DoesNotContain(
            "would-fit",
            Ids(Listing(backend: "cosy shelter for small robins in winterx", terms: [new("owl nest box", 700)]))
        );
    }

    [Fact]
    public void What_must_change_comes_first_and_a_finding_keeps_its_key_until_its_text_changes()
    {
        var draft = Listing(title: GoodTitle + " and hook", description: "Short.");
        var findings = ListingCheck.Check(draft).Findings;
        Assert.Equal(Level.Must, findings[0].Level);
        string Key(ListingToCheck d) => The("description-short", d).Key;
        Assert.Equal(Key(draft), Key(Listing(description: "Short.")));
        Assert.NotEqual(Key(draft), Key(Listing(description: "Shorter.")));
    }

    [Fact]
    public void Places_lie_inside_the_text_and_fixes_settle_what_they_are_for()
    {
        var draft = Listing(
            title: "GARDEN gift FREE SHIPPING, cedar box nest box for wrens and robins in WINTER",
            tags: ["bird house", "house bird", "bird house", "white box"],
            facts: Facts,
            avoid: ["robin"],
            description: "Grey colour, gray."
        );
        foreach (var finding in ListingCheck.Check(draft).Findings)
        {
            var texts = draft.Texts(draft.Platform.Find(finding.Field)!);
            if (finding.Length > 0)
                Assert.InRange(finding.Start + finding.Length, 1, texts[finding.Item].Length);
            if (finding.Fix is { } fix)
                Assert.DoesNotContain(
                    ListingCheck
                        .Check(draft with { Copy = new Dictionary<string, FieldValue>(draft.Copy) { [fix.Field] = fix.Value } })
                        .Findings,
                    f => f.Key == finding.Key && f.Item == finding.Item && f.Start == finding.Start
                );
        }
    }

    [Fact]
    public void A_listing_is_refused_for_what_is_too_long_too_many_or_missing_and_for_nothing_else()
    {
        var refused = ListingCheck.Refusals(
            Fair,
            Samples.Copy(("title", new string('x', 61)), ("tags", new[] { "a", "b", "c", "d", "e" }), ("description", "short")),
            kind: null
        );
        Assert.Equal(["over-limit title", "over-items tags"], refused.Select(f => $"{f.Id} {f.Field}"));
        Assert.Equal("Title has 61 characters; the limit is 60. the fair refuses the listing.", refused[0].Why);
        Assert.Equal(
            ["required-empty title"],
            ListingCheck.Refusals(Fair, Samples.Copy(("title", " ")), kind: null).Select(f => $"{f.Id} {f.Field}")
        );
        Assert.Empty(ListingCheck.Refusals(Fair, Samples.Copy(("title", "Free shipping")), kind: null));
    }

    [Fact]
    public void A_field_is_filled_by_items_where_it_is_a_list_of_phrases_and_by_units_elsewhere()
    {
        (int, int)? Filled(string key, object value) =>
            RoomUsed.Of(Fair.Find(key)!, Samples.Copy((key, value))[key]).Filled(Fair.Find(key)!);
        Assert.Equal((2, 4), Filled("tags", new[] { "owl", " ", "wren" }));
        Assert.Equal((4, 60), Filled("title", "wren"));
        Assert.Equal((6, 40), Filled("backend", "pájar"));
        Assert.Null(Filled("description", "wren"));
    }

    [Theory]
    [InlineData("Cedar bird house, small", "Bird-House", true)]
    [InlineData("bird houses", "bird house", false)]
    [InlineData("bird, house", "house bird", false)]
    [InlineData("blackbird house", "bird house", false)]
    public void A_text_has_a_phrase_when_its_words_are_side_by_side_in_order(string text, string phrase, bool has) =>
        Assert.Equal(has, Tokens.HasPhrase(text, phrase));
}
