using FsCheck;
using FsCheck.Fluent;
using TinRabbit.Core.Measures;
using TinRabbit.Core.Shapes;
using TinRabbit.Core.Words;
using TinRabbit.Server.Shelf;

namespace TinRabbit.Server.Tests;

/// <summary>A shelf in columns finds what a plain look through all of its rows would, in the same order, after any number of changes.</summary>
public class ShelfColumnsTests
{
    private static readonly string[] Words = ["bird", "house", "cedar", "nest", "box", "pájaros", "owl", "boxes", "kit"];

    private static readonly Gen<ShelfLine> Line =
        from words in Gen.Elements(Words).NonEmptyListOf()
        from volume in Number(3000)
        from competition in Number(500)
        from source in Gen.Elements("market", "file")
        from months in Gen.Frequency((1, Gen.Constant<int[]?>(null)), (3, Gen.Choose(0, 90).ArrayOf(14).Select(m => (int[]?)m)))
        select new ShelfLine(0, string.Join(' ', words.Take(4)), volume, competition, double.NaN, double.NaN, 20_000, source)
        {
            Trend = MonthTrend.Of(months, new(2025, 1, 1)),
        };

    private static readonly Gen<ShelfQuery> Query =
        from has in Gen.Elements("", "bir", "box", "o b", "-kit", "bird -house", "pajaros", "zzz")
        from least in Gen.Elements<double?>(null, 0, 100)
        from most in Gen.Elements<double?>(null, 300)
        from room in Gen.Elements<double?>(null, 30)
        from source in Gen.Elements(null, "file", "nobody")
        from order in Gen.Elements(
            ShelfOrder.Volume,
            ShelfOrder.Competition,
            ShelfOrder.Headroom,
            ShelfOrder.Text,
            ShelfOrder.LastMonth,
            ShelfOrder.Change3,
            ShelfOrder.Change12,
            ShelfOrder.Shape,
            ShelfOrder.WebVolume
        )
        from down in Gen.Elements(true, false)
        from skip in Gen.Choose(0, 6)
        from take in Gen.Choose(0, 12)
        from growth in Gen.Elements<double?>(null, null, -20, 10)
        from shape in Gen.Elements<Shape?>(null, null, Shape.Steady, Shape.Sparse)
        from web in Gen.Elements<double?>(null, null, 4)
        select new ShelfQuery(has, least, null, null, most, room, null, null, null, source, null, null, order, down, skip, take)
        {
            Change12From = growth,
            Shape = shape,
            WebVolumeFrom = web,
        };

    // What the web's shelf would say of a term.
    private static double Web(string key) => key.Length % 3 == 0 ? double.NaN : key.Length % 10;

    [Fact]
    public void It_finds_what_a_look_through_all_rows_finds() =>
        Check.One(
            Config.QuickThrowOnFailure.WithMaxTest(150),
            Prop.ForAll(
                Line.ListOf().ToArbitrary(),
                Line.ListOf().ToArbitrary(),
                Query.ListOf(3).ToArbitrary(),
                (first, then, queries) =>
                {
                    var shelf = new ShelfColumns();
                    var plain = new Dictionary<string, ShelfLine>();
                    foreach (var query in queries)
                    {
                        Set(first);
                        shelf.ComputeStatistics();
                        Same(shelf, plain, query);
                        Set(then); // changes after an order was kept: it is mended
                        Same(shelf, plain, query);
                    }

                    void Set(IEnumerable<ShelfLine> lines)
                    {
                        foreach (var line in lines)
                        {
                            var id = plain.TryGetValue(line.Key, out var known) ? known.Id : plain.Count + 1;
                            plain[line.Key] = line with { Id = id };
                            shelf.Set(line with { Id = id });
                        }
                    }
                }
            )
        );

    [Fact]
    public void What_was_dug_passes_beside_what_has_the_head()
    {
        var shelf = new ShelfColumns();
        foreach (var (key, i) in new[] { "bird house", "nest box", "wren box", "owl" }.Select((k, i) => (k, i)))
            shelf.Set(new(i + 1, key, i, 1, double.NaN, double.NaN, 1, "m"));
        Assert.Equal([3, 2, 1], shelf.Search(new(Head: "box", Also: ["bird house"])).Ids);
        Assert.Equal([1], shelf.Search(new(Also: ["bird house", "not there"])).Ids);
        Assert.Equal([1], shelf.Search(new(Head: "box", Also: ["bird house"], Has: "ird")).Ids);
        Assert.Equal((-1, 1), (shelf.RowOf("nothing"), shelf.RowOf("nest box")));
        Assert.Equal(4, shelf.Sources()["m"]);
    }

    private static Gen<double> Number(int most) =>
        Gen.Frequency((1, Gen.Constant(double.NaN)), (4, Gen.Choose(0, most).Select(n => (double)n)));

    private static void Same(ShelfColumns shelf, Dictionary<string, ShelfLine> plain, ShelfQuery q)
    {
        double Headroom(ShelfLine l) => TermMeasures.Headroom(Known(l.Volume), Known(l.Competition), shelf.Norm.Centre) ?? double.NaN;
        var passing = plain
            .Values.Where(l =>
                (q.Has ?? "")
                    .Split(' ', StringSplitOptions.RemoveEmptyEntries)
                    .All(w => w[0] == '-' ? !Holds(l.Key, w[1..]) : Holds(l.Key, w))
                && !(q.VolumeFrom is { } v && !(l.Volume >= v))
                && !(q.CompetitionTo is { } c && !(l.Competition <= c))
                && !(q.HeadroomFrom is { } h && !(Headroom(l) >= h))
                && (q.Source is null || l.Source == q.Source)
                && !(q.Change12From is { } change && !(l.Trend?.Change12 >= change))
                && (q.Shape is not { } shape || l.Trend?.Shape == shape)
                && !(q.WebVolumeFrom is { } web && !(Web(l.Key) >= web))
            )
            .ToList();
        double Value(ShelfLine l) =>
            q.By switch
            {
                ShelfOrder.Volume => l.Volume,
                ShelfOrder.Competition => l.Competition,
                ShelfOrder.LastMonth => l.Trend?.LastMonth ?? double.NaN,
                ShelfOrder.Change3 => l.Trend?.Change3 ?? double.NaN,
                ShelfOrder.Change12 => l.Trend?.Change12 ?? double.NaN,
                ShelfOrder.Shape => l.Trend?.Shape is { } shape ? (int)shape : double.NaN,
                ShelfOrder.WebVolume => Web(l.Key),
                _ => Headroom(l),
            };
        if (q.NeedsTrends && !shelf.HasTrends)
            shelf.TakeTrends(plain.Values.Where(l => l.Trend is not null).Select(l => (l.Key, l.Trend!)));
        if (q.NeedsWeb && shelf.WebFrom is null)
            shelf.TakeWeb(Web, "the web");
        var (ids, all) = shelf.Search(q);
        Assert.Equal(passing.Count, all);
        Assert.Equal(Math.Clamp(passing.Count - q.Skip, 0, q.Take), ids.Count);
        var byId = plain.Values.ToDictionary(l => l.Id);
        Assert.All(ids, id => Assert.Contains(passing, l => l.Id == id));
        Assert.Equal(ids.Count, ids.Distinct().Count());
        if (q.By == ShelfOrder.Text)
        {
            var texts = ids.Select(id => byId[id].Key).ToList();
            Assert.Equal(q.Down ? texts.OrderDescending(Bytes) : texts.Order(Bytes), texts);
            return;
        }

        // The values stand in order, unknown ones last, and nothing better was left out.
        var wanted = (
            q.Down
                ? passing.Where(l => !double.IsNaN(Value(l))).OrderByDescending(Value)
                : passing.Where(l => !double.IsNaN(Value(l))).OrderBy(Value)
        )
            .Concat(passing.Where(l => double.IsNaN(Value(l))))
            .Skip(q.Skip)
            .Take(q.Take)
            .Select(Value);
        Assert.Equal(wanted, ids.Select(id => Value(byId[id])));
    }

    private static readonly Comparer<string> Bytes = Comparer<string>.Create(
        (a, b) => System.Text.Encoding.UTF8.GetBytes(a).AsSpan().SequenceCompareTo(System.Text.Encoding.UTF8.GetBytes(b))
    );

    private static bool Holds(string key, string word) =>
        key.Contains(word, StringComparison.Ordinal) || Fold.Letters(key).Contains(word, StringComparison.Ordinal);

    private static double? Known(double value) => double.IsNaN(value) ? null : value;
}
