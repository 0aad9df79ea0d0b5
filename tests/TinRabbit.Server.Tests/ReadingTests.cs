using TinRabbit.Core.Platforms;
using TinRabbit.Server.Files.Html.Reading;

namespace TinRabbit.Server.Tests;

/// <summary>Pages that a seller saw are read: held to pages that were made in many layouts and five languages.</summary>
public class ReadingTests
{
    private static ReadPage Read(string html) => PageReader.Read(html, null, null, default);

    [Fact]
    public void Pages_of_every_layout_and_language_are_read()
    {
        var layouts = ReadingScore.OfLayouts(Read);
        var all = ReadingScore.OfAll(layouts.Values);
        var table = string.Join('\n', layouts.Select(l => $"{l.Key}: {l.Value}")) + $"\nall: {all}";
        Assert.True(all.Titles >= 0.97 && layouts.Values.All(l => l.Titles >= 0.9), table);
        Assert.True(all.Prices / all.Right >= 0.97, table);
        Assert.True(Math.Min(all.Ads, all.Places) / all.Right >= 0.95, table);
        Assert.True(all.Totals / all.Pages >= 0.95 && all.Queries / all.Pages >= 0.95, table);
    }

    [Fact]
    public void What_was_copied_as_text_is_read_by_its_lines()
    {
        var all = new ReadingScore();
        foreach (var language in Enumerable.Range(0, 5))
        foreach (var seed in Enumerable.Range(1, 6))
        {
            var made = new MadePages(seed * 100 + language).Make("cards", language);
            all.Add(made, PageReader.Read(null, made.Copied, null, default));
        }

        Assert.True(
            all.Titles >= 0.9 && all.Prices / all.Right >= 0.9 && all.Ads / all.Right >= 0.9 && all.Totals / all.Pages >= 0.9,
            all.ToString()
        );
    }

    private const string Plain = """
        <html lang=en><head><title>Leather cover | Market</title></head><body><header><nav><a href=/>Home</a><a href=/paper>Paper</a></nav></header>
        <nav aria-label="Breadcrumb"><a href=/>Home</a> › <a href=/paper>Paper</a> › <a href=/covers>Notebook covers</a></nav>
        <main><div><img src=a.jpg alt="A brown cover on a desk"><img src=b.jpg alt="The inside pocket"></div>
        <div><h1>A5 leather notebook cover, refillable</h1><p><s>£52.00</s> <b>£38.00</b></p><p>4.8 out of 5 stars (1,204 reviews)</p>
        <button>Add to basket</button></div>
        <section><h2>Highlights</h2><ul><li>Vegetable tanned leather that ages well</li><li>Fits every A5 notebook of 200 pages</li></ul></section>
        <section><h2>Description</h2><div><p>Cut and sewn by hand in our bindery.</p><p>The pocket holds two cards.</p></div></section>
        <table><tr><th>Material</th><td>Leather</td></tr><tr><th>Closure</th><td>Elastic</td></tr></table>
        <section><h2>Tags</h2><a rel=tag href=/t/1>notebook cover</a> <a rel=tag href=/t/2>refillable</a></section>
        <section><h2>Reviews</h2><div><article><span aria-label="5 out of 5 stars"></span><p>Smells wonderful and fits my notebook.</p><time datetime=2026-09-03>3 Sep</time></article>
        <article><span aria-label="2 out of 5 stars"></span><p>The elastic is too tight for me.</p><time datetime=2026-08-11>11 Aug</time></article></div></section></main>
        <aside><h2>You may also like</h2><div><div><a href=/1><h4>Pen loop</h4></a><span>£9.00</span></div><div><a href=/2><h4>Linen album</h4></a><span>£22.00</span></div><div><a href=/3><h4>Ink pad</h4></a><span>£6.00</span></div></div></aside>
        <footer><ul><li><a href=/a>About</a></li><li><a href=/b>Help</a></li></ul></footer></body></html>
        """;

    [Fact]
    public void A_listing_is_read_from_what_is_seen()
    {
        var read = Read(Plain);
        Assert.Equal(ReadKind.Listing, read.Kind);
        var listing = read.Listing!;
        Assert.Equal(("A5 leather notebook cover, refillable", 38.00m, "GBP"), (listing.Title, listing.Price, listing.Currency));
        Assert.Equal((4.8, 1204), (listing.Rating, listing.Ratings));
        Assert.Equal("Cut and sewn by hand in our bindery.\nThe pocket holds two cards.", listing.Description);
        Assert.Equal(["Vegetable tanned leather that ages well", "Fits every A5 notebook of 200 pages"], listing.Bullets);
        Assert.Equal(["notebook cover", "refillable"], listing.Tags);
        Assert.Equal(["Paper", "Notebook covers"], listing.Category);
        Assert.Equal(("Leather", "Elastic"), (listing.Attributes["Material"], listing.Attributes["Closure"]));
        Assert.Equal(["A brown cover on a desk", "The inside pocket"], listing.Images.Select(i => i.Alt));
        Assert.Equal(
            [
                new("Smells wonderful and fits my notebook.", 5, new(2026, 9, 3)),
                new("The elastic is too tight for me.", 2, new(2026, 8, 11)),
            ],
            listing.Reviews
        );
    }

    [Fact]
    public void A_listing_is_read_from_what_it_says_of_itself_and_the_page_fills_what_that_lacks()
    {
        const string Data = """
            <script type="application/ld+json">{"@context":"https://schema.org","@graph":[{"@type":"BreadcrumbList","itemListElement":[{"position":1,"name":"Covers"}]},
            {"@type":"Product","name":"A5 leather cover","offers":{"@type":"Offer","price":"41.50","priceCurrency":"EUR"},"aggregateRating":{"ratingValue":"4,6","reviewCount":"87"},
            "review":[{"reviewBody":"Lovely.","reviewRating":{"ratingValue":5},"datePublished":"2026-05-01T10:00:00Z"}],"description":"<p>By hand.</p>"}]}</script>
            """;
        var listing = Read(Plain.Replace("</head>", Data + "</head>", StringComparison.Ordinal)).Listing!;
        Assert.Equal((41.50m, "EUR", 4.6, 87), (listing.Price, listing.Currency, listing.Rating, listing.Ratings));
        Assert.Equal(["Covers"], listing.Category);
        Assert.Equal([new("Lovely.", 5, new(2026, 5, 1))], listing.Reviews);
        Assert.Equal("Leather", listing.Attributes["Material"]);
        // Data that is no JSON says nothing, and the page is read.
        Assert.Equal(
            38.00m,
            Read(
                Plain.Replace("</head>", "<script type=application/ld+json>{\"@type\":</script></head>", StringComparison.Ordinal)
            ).Listing!.Price
        );
    }

    [Fact]
    public void Suggestions_are_read_in_their_order()
    {
        var read = Read(
            "<div role=listbox><div role=option>notebook cover a5</div><div role=option>notebook cover leather</div><div role=option>notebook cover personalised</div></div>"
        );
        Assert.Equal(ReadKind.Suggestions, read.Kind);
        Assert.Equal(["notebook cover a5", "notebook cover leather", "notebook cover personalised"], read.Suggestions);
        var copied = PageReader.Read(null, "notebook cover a5\n\n  notebook cover leather \nnotebook cover a5\n", null, default);
        Assert.Equal((ReadKind.Suggestions, 2), (copied.Kind, copied.Suggestions.Count));
    }

    [Fact]
    public void Ones_own_listings_the_related_searches_and_what_is_not_sure_are_told()
    {
        var made = new MadePages(5).Make("ranges", 0);
        var read = PageReader.Read(made.Html, null, "fen works", default);
        Assert.Equal(6, read.Related.Count);
        Assert.Equal(
            made.Items.Count(i => i.UpTo is not null),
            read.Unread.Count(u => u.Contains("range of prices", StringComparison.Ordinal))
        );
        made = new MadePages(6).Make("cards", 0);
        read = PageReader.Read(made.Html, null, "fen works", default);
        Assert.Equal(
            made.Items.Where(i => i.Shop == "Fen Works").Select(i => i.Title),
            read.Results.Where(r => r.Mine).Select(r => r.Title)
        );
        Assert.Equal(made.Items[0].Ratings, read.Results[0].Ratings);
        var other = Read("<html><body><h1>About us</h1><p>We make things from paper.</p></body></html>");
        Assert.Equal(ReadKind.Other, other.Kind);
        Assert.NotEmpty(other.Unread);
    }

    [Fact]
    public void Positions_of_a_later_page_go_on_from_the_one_before()
    {
        var made = new MadePages(7).Make("cards", 0);
        var read = Read(made.Html.Replace("1–" + made.Items.Count, $"49–{48 + made.Items.Count}", StringComparison.Ordinal));
        Assert.Equal((49, 48 + made.Items.Count), (read.Results[0].Position, read.Results[^1].Position));
    }

    [Theory]
    [InlineData("<ul>", 50_000, "stand in each other")]
    [InlineData("<p>x", 250_000, "more than 200,000 tags")]
    public void A_page_beyond_a_bound_is_refused_in_words(string part, int times, string says)
    {
        var wrong = Assert.Throws<InvalidInputException>(() => Read(string.Concat(Enumerable.Repeat(part, times))));
        Assert.Contains(says, wrong.Problems[0].Message);
    }

    [Fact]
    public void A_hostile_page_is_read_soon_and_nothing_of_it_runs_or_is_fetched()
    {
        // Rows in rows, each like the other; long runs of digits; data that refers to itself.
        foreach (
            var page in new[]
            {
                string.Concat(Enumerable.Repeat("<div><div><div><a href=x>Owl box</a> <b>£1</b></div></div></div>", 8_000)),
                "<p>" + new string('1', 200_000) + "</p>" + string.Concat(Enumerable.Repeat("<i>£9,999,999,999,999</i>", 5_000)),
                $"<script type=application/ld+json>{string.Concat(Enumerable.Repeat("[", 60))}{string.Concat(Enumerable.Repeat("]", 60))}</script><script>location='http://x'</script><img src=http://x onerror=alert(1)>",
                string.Concat(Enumerable.Repeat("<table><tr>", 60)) + "Owl",
            }
        )
            try
            {
                Assert.NotNull(Read(page));
            }
            catch (InvalidInputException e)
            {
                // A slow computer refuses what takes it too long.
                Assert.Contains("took more than", e.Problems[0].Message);
            }

        var many = Read(
            string.Concat(Enumerable.Range(0, 2_500).Select(i => $"<div><a href=/{i}>Owl box number {i}</a> <b>£1.00</b></div>"))
        );
        Assert.Equal(2_000, many.Results.Count);
        Assert.Contains(many.Unread, u => u.Contains("2,000", StringComparison.Ordinal));
    }
}
