using FsCheck;
using FsCheck.Fluent;
using TinRabbit.Core.Comparing;
using TinRabbit.Core.Platforms;
using TinRabbit.Core.Watching;
using TinRabbit.Core.Words;

namespace TinRabbit.Core.Tests;

/// <summary>What is observed day by day: merged figures, first pages, flips, why a search did not find a listing, and what a change did.</summary>
public class WatchingTests
{
    private static readonly DateOnly Day = new(2026, 6, 1);
    private static readonly DateTime Noon = Day.ToDateTime(new(12, 0), DateTimeKind.Utc);

    private static readonly Gen<DayMetrics> Metrics =
        from views in Gen.Choose(-1, 50)
        from clicks in Gen.Choose(-1, 9)
        from source in Gen.Elements("file", "market")
        select new DayMetrics(views < 0 ? null : views, clicks < 0 ? null : clicks, null, source);

    [Fact]
    public void Of_several_numbers_for_a_day_the_newest_known_one_of_each_measure_counts() =>
        Check.QuickThrowOnFailure(
            Prop.ForAll(
                Metrics.NonEmptyListOf().ToArbitrary(),
                brought =>
                {
                    var merged = DailySeries.Merge(1, "m", brought.Select(b => (Day, b))).Days[Day];
                    return merged.Views == brought.LastOrDefault(b => b.Views is not null).Views
                        && merged.Clicks == brought.LastOrDefault(b => b.Clicks is not null).Clicks
                        && brought.Any(b => merged.Source.Contains(b.Source, StringComparison.Ordinal));
                }
            )
        );

    [Fact]
    public void A_sum_is_known_only_where_every_day_is()
    {
        var series = DailySeries.Merge(1, "m", [(Day, new(5, 1, null)), (Day.AddDays(1), new(7, null, null))]);
        Assert.Equal(12, series.Sum(DailyMeasure.Views, Day.AddDays(1), 2));
        Assert.Null(series.Sum(DailyMeasure.Views, Day.AddDays(1), 3));
        Assert.Null(series.Sum(DailyMeasure.Clicks, Day.AddDays(1), 2));
    }

    [Fact]
    public void The_known_days_have_a_sum_where_others_are_unknown_and_none_where_all_are()
    {
        var series = DailySeries.Merge(
            1,
            "m",
            [(Day.AddDays(-3), new(100, 1, null)), (Day, new(5, null, null)), (Day.AddDays(2), new(7, 0, null))]
        );
        Assert.Equal(12, series.SumOfKnown(DailyMeasure.Views, Day.AddDays(2), 5));
        Assert.Equal(112, series.SumOfKnown(DailyMeasure.Views, Day.AddDays(2), 6));
        Assert.Equal(5, series.SumOfKnown(DailyMeasure.Views, Day, 1));
        Assert.Equal(0, series.SumOfKnown(DailyMeasure.Clicks, Day.AddDays(2), 2));
        Assert.Null(series.SumOfKnown(DailyMeasure.Clicks, Day, 2));
        Assert.Null(series.SumOfKnown(DailyMeasure.Sales, Day.AddDays(2), 28));
    }

    [Theory]
    [InlineData(1, 48, 1)]
    [InlineData(48, 48, 1)]
    [InlineData(49, 48, 2)]
    [InlineData(5, 1, 5)]
    public void The_page_of_a_rank_follows_from_the_results_of_a_page(int rank, int size, int page) =>
        Assert.Equal(page, FirstPage.PageOf(rank, size));

    [Fact]
    public void The_share_on_the_first_page_counts_the_terms_that_were_checked_that_day()
    {
        Assert.Null(FirstPage.PageOf(null, 48));
        // Two terms; not checked on the first day, one not found on the second, both on page one or two on the third.
        var shares = FirstPage.Shares(
            [
                [null, 0, 3],
                [null, 10, 49],
            ],
            3,
            48
        );
        Assert.Equal([null, 0.5, 0.5], shares);
    }

    [Fact]
    public void A_term_flips_where_both_checks_asked_for_it_and_differ()
    {
        Assert.Equal(Flip.Appeared, Flips.Between(false, true));
        Assert.Equal(Flip.Disappeared, Flips.Between(true, false));
        (bool?, bool?)[] same = [(null, true), (null, false), (true, null), (true, true), (false, false)];
        Assert.All(same, p => Assert.Equal(Flip.None, Flips.Between(p.Item1, p.Item2)));
        var (before, now) = (
            new Dictionary<int, bool>
            {
                [1] = true,
                [2] = false,
                [3] = true,
            },
            new Dictionary<int, bool>
            {
                [1] = false,
                [2] = true,
                [4] = true,
            }
        );
        Assert.Equal((1, 1), Flips.Count(before, now));
    }

    [Fact]
    public void Why_a_search_did_not_find_a_listing()
    {
        var platform = Samples.Platform(Folds.None);
        IReadOnlyDictionary<string, FieldValue> Titled(string title) => Samples.Copy(("title", title));
        NotFoundReason Why(ListingAtMarket listing, string term, DateTime at) =>
            listing.WhyNotFound(term, listing.WeighAt([(term, at)], default)[0].Grade != Matching.Grade.Missing, at, default);

        var draft = new ListingAtMarket(platform, [], Titled("cedar bird house"));
        Assert.Equal(NotFoundReason.NotSent, Why(draft, "bird house", Noon));
        Assert.Equal(NotFoundReason.WordMissing, Why(draft, "owl box", Noon));

        var sent = new ListingAtMarket(
            platform,
            [new(Noon.AddDays(-9), Titled("cedar bird house")), new(Noon.AddHours(6), Titled("cedar owl box"))],
            Titled("something else")
        );
        Assert.Equal(NotFoundReason.RulesDiffer, Why(sent, "bird house", Noon));
        Assert.Equal(NotFoundReason.IndexDelay, Why(sent, "owl box", Noon));
        Assert.Equal(NotFoundReason.WordMissing, Why(sent, "bat box", Noon));
        Assert.Equal(NotFoundReason.RulesDiffer, Why(sent, "owl box", Noon.AddHours(7)));
        Assert.Null(sent.CopyAt(Noon.AddDays(-10)));
    }

    private static readonly Gen<List<ChangeNote>> Notes =
        from days in Gen.Choose(-70, 70).ListOf(6)
        from delays in Gen.Choose(0, 60).ListOf(6)
        select days.Zip(delays)
            .Select((d, i) => new ChangeNote(i + 1, null, 1, "m", Noon.AddDays(d.First), Noon.AddDays(d.First).AddHours(d.Second)))
            .Prepend(new ChangeNote(0, null, 1, "m", Noon, Noon.AddHours(6)))
            .ToList();

    [Fact]
    public void No_other_change_is_in_the_days_that_are_compared_around_one() =>
        Check.QuickThrowOnFailure(
            Prop.ForAll(
                Notes.ToArbitrary(),
                notes =>
                {
                    var windows = ChangeWindows.Of(notes[0], notes);
                    // A change whose delay reaches into these days leaves nothing before to compare with.
                    if (windows.Earliest >= windows.Changed)
                        return true;
                    var compared = Range(windows.Earliest, windows.Changed.AddDays(-1))
                        .Concat(Range(windows.Counts, windows.Latest))
                        .ToList();
                    return compared.Count <= 2 * BeforeAfter.LongestWindow
                        && notes.Skip(1).Where(n => n.Day != notes[0].Day).All(n => !compared.Any(d => d >= n.Day && d < n.FirstDay));
                }
            )
        );

    private static IEnumerable<DateOnly> Range(DateOnly from, DateOnly to) =>
        Enumerable.Range(0, Math.Max(0, to.DayNumber - from.DayNumber + 1)).Select(from.AddDays);

    // Views of a listing: so many a day before the change, so many after it.
    private static DailySeries Series(int listing, int before, int after, int days = 60) =>
        DailySeries.Merge(
            listing,
            "m",
            Enumerable
                .Range(-days, 2 * days)
                .Select(d => (Day.AddDays(d), new DayMetrics((d < 0 ? before : after) + Math.Abs(d * 7 % 5), null, null)))
        );

    [Fact]
    public void What_untouched_listings_did_as_well_is_no_effect_of_the_change()
    {
        var note = new ChangeNote(1, null, 1, "m", Noon, Noon);
        ChangeEffect Effect(params DailySeries[] series) =>
            new ChangeEffects(series, new Dictionary<(int, string), Demand>(), [note], new Dictionary<int, int>()).Of(
                note,
                DailyMeasure.Views
            );

        var alone = Effect(Series(1, 40, 80));
        Assert.Equal((Verdict.Up, 0), (alone.Found.Verdict, alone.Controls));
        var beside = Effect(Series(1, 40, 80), Series(2, 40, 80));
        Assert.Equal(1, beside.Controls);
        Assert.Equal(0, beside.Found.Difference!.Value, 1e-6);
        var better = Effect(Series(1, 40, 80), Series(2, 40, 40));
        Assert.Equal((Verdict.Up, 1), (better.Found.Verdict, better.Controls));
    }

    [Fact]
    public void Below_one_a_day_nothing_is_said()
    {
        var note = new ChangeNote(1, null, 1, "m", Noon, Noon);
        var few = DailySeries.Merge(
            1,
            "m",
            Enumerable.Range(-30, 60).Select(d => (Day.AddDays(d), new DayMetrics(d % 9 == 0 ? 1 : 0, null, null)))
        );
        var effect = new ChangeEffects([few], new Dictionary<(int, string), Demand>(), [note], new Dictionary<int, int>()).Of(
            note,
            DailyMeasure.Views
        );
        Assert.True(effect.IsTooFew);
        Assert.Equal((null, Verdict.Unclear), (effect.Found.Difference, effect.Found.Verdict));
    }
}
