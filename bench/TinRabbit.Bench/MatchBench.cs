using System.Text.RegularExpressions;
using BenchmarkDotNet.Attributes;
using BenchmarkDotNet.Configs;
using BenchmarkDotNet.Jobs;
using BenchmarkDotNet.Loggers;
using BenchmarkDotNet.Running;
using BenchmarkDotNet.Toolchains.InProcess.Emit;
using TinRabbit.Core.Matching;
using TinRabbit.Core.Measures;
using TinRabbit.Core.Platforms;
using TinRabbit.Core.Words;
using TinRabbit.Market;
using TinRabbit.Market.StandIn;
using TinRabbit.Server.Shelf;

namespace TinRabbit.Bench;

/// <summary>10,000 terms against a 12 kB listing, beside a single pass over the same text and one regular expression a term.</summary>
public class MatchBench
{
    private const int TermCount = 10_000;
    private const int ListingBytes = 12_000;

    private readonly Platform _platform = Profile("longbarrow");
    private List<string> _terms = [];
    private WantedTerm[] _wanted = [];
    private Dictionary<string, FieldValue> _copy = [];
    private string _text = "";
    private TermSet _ready = null!;
    private HashSet<string> _words = [];
    private Regex[] _expressions = [];

    internal static Platform Profile(string id)
    {
        using var reader = new StreamReader(typeof(MatchBench).Assembly.GetManifestResourceStream($"{id}.json")!);
        return PlatformJson.Read(reader.ReadToEnd());
    }

    [GlobalSetup]
    public void SetUp()
    {
        var market = new StandInMarket(1, [_platform], TimeProvider.System);
        var heads = new[]
        {
            "bird",
            "nest",
            "bat",
            "feeder",
            "gift",
            "box",
            "house",
            "wooden",
            "cedar",
            "garden",
            "window",
            "owl",
            "chart",
            "shirt",
        };
        _terms =
        [
            .. heads
                .SelectMany(h => market.Suggestions("longbarrow-us", h, default).Result.Concat(market.Suggest("longbarrow-us", h, 4000)))
                .Distinct()
                .Take(TermCount),
        ];
        _wanted = [.. _terms.Select((t, i) => new WantedTerm(t, 10 + i % 5000, 100, 50))];
        // A long listing of one product: its own forty terms among prose.
        var own = _terms.Where(t => t.Contains("nest box", StringComparison.Ordinal)).Take(40).ToList();
        var title = string.Join(", ", own.Take(6));
        var bullets = Enumerable
            .Range(0, 5)
            .Select(i => string.Join(" and ", own.Skip(i * 3).Take(3)) + " for wrens in a cold April")
            .ToArray();
        var prose = new[]
        {
            "The front swings open on two brass screws, so that last year's nest can be taken out in autumn; the roof slopes, the floor drains. ",
            "Each one is cut and put together by the two of us in a shed with a view of the marsh, from planks that are as thick as a thumb. ",
            "Left plain it turns silver within the year and needs neither paint nor oil, and what little it moves in wet weather does no harm. ",
            "Hang it where the morning sun does not reach the door, twice as high as a person stands, away from any branch that a cat could use. ",
        };
        var long_ = string.Concat(Enumerable.Range(0, 200).Select(i => prose[i % prose.Length] + own[i % own.Count] + ". "));
        var rest = ListingBytes - title.Length - bullets.Sum(b => b.Length);
        _copy = new()
        {
            ["title"] = new FieldValue.Text(title),
            ["bullets"] = new FieldValue.Items(bullets),
            ["backend"] = new FieldValue.Text(long_[..rest]),
        };
        _text = $"{title}\n{string.Join('\n', bullets)}\n{long_[..rest]}";
        _ready = TermSet.Prepare(_platform, _terms);
        _words = [.. _terms.SelectMany(Tokens.Of).Select(t => t.Word)];
        _expressions =
        [
            .. _terms.Select(t => new Regex(
                $@"\b{string.Join(@"\W+", Tokens.Of(t).Select(w => Regex.Escape(w.Word)))}\b",
                RegexOptions.IgnoreCase | RegexOptions.CultureInvariant
            )),
        ];
    }

    [Benchmark(Baseline = true, Description = "one pass: cut the listing, look each word up")]
    public int OnePass() => Tokens.Of(_text).Count(t => _words.Contains(t.Word));

    [Benchmark(Description = "weigh 10,000 terms, terms ready")]
    public double WeighReady() => Weigher.Weigh(_ready, _copy, _wanted).Reach;

    [Benchmark(Description = "the same, each term explained with its spans")]
    public int Explained() =>
        Weigher.Weigh(_ready, _copy, _wanted).Terms.Sum(t => t.Explain() is var match ? t.Near(match).Count + match.Spans.Count : 0);

    [Benchmark(Description = "one pass: cut listing and terms, look each word up")]
    public int OnePassBoth() =>
        Tokens.Of(_text).Count(t => _words.Contains(t.Word)) + _terms.Sum(t => Tokens.Of(t).Count(w => _words.Contains(w.Word)));

    [Benchmark(Description = "weigh 10,000 terms from scratch")]
    public double WeighCold() => Weigher.Weigh(_platform, _copy, _wanted).Reach;

    [Benchmark(Description = "one regular expression a term")]
    public int Expressions() => _expressions.Count(e => e.IsMatch(_text));

    /// <summary>Runs it and prints the ratios, all of one run.</summary>
    internal static void Report()
    {
        var config = ManualConfig
            .CreateEmpty()
            .AddJob(
                Job.Default.WithToolchain(new InProcessEmitToolchain(TimeSpan.FromMinutes(5), true))
                    .WithWarmupCount(5)
                    .WithIterationCount(12)
            )
            .AddColumnProvider(DefaultConfig.Instance.GetColumnProviders().ToArray())
            .AddLogger(NullLogger.Instance);
        var summary = BenchmarkRunner.Run<MatchBench>(config);
        var means = summary.Reports.ToDictionary(
            r => r.BenchmarkCase.Descriptor.WorkloadMethod.Name,
            r => r.ResultStatistics!.Median / 1e6
        );
        var bench = new MatchBench();
        bench.SetUp();
        Console.WriteLine(
            $"match: {bench._terms.Count:N0} terms against a listing of {ListingBytes:N0} bytes that holds {Weigher.Weigh(bench._ready, bench._copy, bench._wanted).Eligible:N0} of them, one thread, medians"
        );
        foreach (var report in summary.Reports)
            Console.WriteLine(
                $"  {report.BenchmarkCase.Descriptor.WorkloadMethodDisplayInfo.Trim('\''), -52} {means[report.BenchmarkCase.Descriptor.WorkloadMethod.Name], 9:F3} ms"
            );
        Console.WriteLine(
            $"  weighing, terms ready ÷ one pass over the listing     {means[nameof(WeighReady)] / means[nameof(OnePass)]:F2}"
        );
        Console.WriteLine(
            $"  weighing from scratch ÷ one pass over all that text   {means[nameof(WeighCold)] / means[nameof(OnePassBoth)]:F2}"
        );
        Console.WriteLine(
            $"  expressions ÷ weighing, terms ready                   {means[nameof(Expressions)] / means[nameof(WeighReady)]:F0}"
        );
    }
}
