using TinRabbit.Core.Filling.Tags;
using TinRabbit.Core.Filling.Titles;
using TinRabbit.Core.Filling.Words;
using TinRabbit.Core.Findings;
using TinRabbit.Core.Matching;
using TinRabbit.Core.Measures;
using TinRabbit.Core.Platforms;
using TinRabbit.Core.Words;

namespace TinRabbit.Core.Tests;

/// <summary>Every long computation can be stopped, and none grows without bound with the length of a term.</summary>
public class StopTests
{
    private static readonly Platform Platform = PlatformJson.Read(
        """
        {"id":"p","name":"P","search":{"folds":["plural","compound"],"wordsCombine":true},"banned":["free shipping"],
         "fields":[{"key":"title","shape":"line","role":"title","indexed":true,"weight":0.8,"front":true,"limit":{"max":80}},
                   {"key":"tags","shape":"phrases","role":"tags","indexed":true,"weight":0.6,"limit":{"maxItems":8,"max":24}},
                   {"key":"backend","shape":"words","role":"backend","indexed":true,"weight":0.4,"limit":{"max":120,"unit":"bytes"}},
                   {"key":"description","shape":"text","role":"body","indexed":true,"weight":0.1}]}
        """
    );

    private static readonly WantedTerm[] Terms = [.. Enumerable.Range(0, 60).Select(i => new WantedTerm($"bird house {i} kit", 100 + i))];

    private static readonly Dictionary<string, FieldValue> Copy = new()
    {
        ["title"] = new FieldValue.Text("Bird house 7"),
        ["description"] = new FieldValue.Text("A bird house. Free shipping."),
    };

    [Theory]
    [InlineData("weigh")]
    [InlineData("check")]
    [InlineData("words")]
    [InlineData("phrases")]
    [InlineData("title")]
    public void Who_stops_it_is_obeyed(string what)
    {
        Run(what, default);
        Assert.ThrowsAny<OperationCanceledException>(() => Run(what, new CancellationToken(canceled: true)));
    }

    [Fact]
    public void A_term_of_twenty_thousand_words_overflows_no_stack()
    {
        var text = string.Join(' ', Enumerable.Repeat("nest box", 10_000));
        var ready = TermSet.Prepare(Platform, [text, "bird house"]);
        Assert.Equal(1, Weigher.Weigh(ready, Copy, [new(text, 5), new("bird house", 5)]).Eligible);
        Assert.Equal([text], Family.Forms(text));
        Assert.Equal([text], Family.OneChangeForms(text));
    }

    [Fact]
    public void Twenty_findings_of_one_kind_are_enough()
    {
        var copy = new Dictionary<string, FieldValue>(Copy)
        {
            ["description"] = new FieldValue.Text(string.Concat(Enumerable.Repeat("Free shipping and a grey or gray house. ", 400))),
        };
        var found = ListingCheck.Check(new(Platform, copy, Terms, null, null, [], null, [])).Findings;
        Assert.All(found.GroupBy(f => f.Id), kind => Assert.InRange(kind.Count(), 1, 20));
        Assert.Equal(20, found.Count(f => f.Id == "banned"));
    }

    private static void Run(string what, CancellationToken stop)
    {
        switch (what)
        {
            case "weigh":
                Weigher.Weigh(Platform, Copy, Terms, stop);
                break;
            case "check":
                ListingCheck.Check(new(Platform, Copy, Terms, "bird house", null, [], null, []), stop);
                break;
            case "words":
                WordsFill.Of(new(Platform, Copy, "backend", Terms, []), stop);
                break;
            case "phrases":
                TagsFill.Of(new(Platform, Copy, "tags", Terms, []), stop);
                break;
            default:
                TitleFill.Of(new(Platform, Copy, "title", Terms, []), stop);
                break;
        }
    }
}
