using FsCheck;
using FsCheck.Fluent;
using TinRabbit.Core.Filling.Knapsack;

namespace TinRabbit.Core.Tests;

/// <summary>The knapsack and its bound, held against every choice there is.</summary>
public class KnapsackTests
{
    private sealed record Question(int[] Costs, Bundle[] Bundles, int Room);

    private static readonly Gen<Question> Small =
        from items in Gen.Choose(1, 10)
        from costs in Gen.Choose(1, 9).ArrayOf(items)
        from room in Gen.Choose(0, 40)
        from bundles in Gen.Choose(0, 12).SelectMany(n => Bundle(items).ListOf(n))
        select new Question(costs, [.. bundles], room);

    private static Gen<Bundle> Bundle(int items) =>
        from term in Gen.Choose(0, 7)
        from value in Gen.Choose(1, 500)
        from needs in Gen.Choose(1, Math.Min(4, items)).SelectMany(n => Gen.Choose(0, items - 1).ListOf(n))
        // A term is worth the same, whichever of its bundles is complete.
        select new Bundle(term, 1 + term * 37 % 11 * 10, [.. needs.Distinct()]);

    private static double Worth(Bundle[] bundles, int set) =>
        bundles.Where(b => b.Items.All(i => (set >> i & 1) == 1)).Select(b => (b.Term, b.Value)).Distinct().Sum(b => b.Value);

    private static int Cost(int[] costs, int set) => costs.Where((_, i) => (set >> i & 1) == 1).Sum();

    private static int Set(bool[] items) => items.Select((on, i) => on ? 1 << i : 0).Sum();

    [Fact]
    public void The_choice_fits_is_worth_what_it_says_and_none_is_better() =>
        Check.One(
            Config.QuickThrowOnFailure.WithMaxTest(2000),
            Prop.ForAll(
                Small.ToArbitrary(),
                q =>
                {
                    var packed = new SetUnionKnapsack(q.Costs, q.Bundles, q.Room).Solve();
                    var best = Enumerable
                        .Range(0, 1 << q.Costs.Length)
                        .Where(set => Cost(q.Costs, set) <= q.Room)
                        .Max(set => Worth(q.Bundles, set));
                    Assert.True(Cost(q.Costs, Set(packed.Items)) <= q.Room, "over the room");
                    Assert.Equal(Worth(q.Bundles, Set(packed.Items)), packed.Value, 6);
                    Assert.Equal(best, packed.Value, 6);
                    Assert.True(packed.Bound >= best - 1e-6, $"the bound {packed.Bound} is below {best}");
                }
            )
        );

    [Fact]
    public void Where_there_are_too_many_to_try_them_all_it_is_near_the_best()
    {
        var dice = new Random(11);
        for (var turn = 0; turn < 25; turn++)
        {
            int[] costs = [.. Enumerable.Range(0, 21).Select(_ => dice.Next(1, 10))];
            // Every fifth term can be had in two ways.
            Bundle[] bundles =
            [
                .. Enumerable
                    .Range(0, 24)
                    .Select(b => new Bundle(
                        b % 20,
                        10 + b % 20 * 53 % 97,
                        [.. Enumerable.Range(0, dice.Next(1, 5)).Select(_ => dice.Next(21)).Distinct()]
                    )),
            ];
            bundles = [.. bundles, .. Enumerable.Range(0, 21).Select(i => new Bundle(30 + i, 1, [i]))];
            var room = dice.Next(10, 70);
            var packed = new SetUnionKnapsack(costs, bundles, room).Solve();
            int[] masks = [.. bundles.Select(b => b.Items.Sum(i => 1 << i))];
            var best = 0.0;
            var costOf = new int[1 << 21];
            for (var set = 1; set < costOf.Length; set++)
            {
                costOf[set] = costOf[set & (set - 1)] + costs[System.Numerics.BitOperations.TrailingZeroCount(set)];
                if (costOf[set] > room)
                    continue;
                var (worth, met) = (0.0, 0UL);
                for (var b = 0; b < masks.Length; b++)
                    if ((masks[b] & set) == masks[b] && (met >> bundles[b].Term & 1) == 0)
                        (worth, met) = (worth + bundles[b].Value, met | 1UL << bundles[b].Term);
                best = Math.Max(best, worth);
            }

            Assert.True(packed.Value >= best * 0.995, $"ours {packed.Value}, best {best}, bound {packed.Bound}, turn {turn}, room {room}");
            Assert.True(
                packed.Bound >= best - 1e-6 && packed.Value <= best + 1e-6,
                $"ours {packed.Value}, best {best}, bound {packed.Bound}"
            );
        }
    }

    [Fact]
    public void The_same_question_has_the_same_answer() =>
        Check.One(
            Config.QuickThrowOnFailure.WithMaxTest(100),
            Prop.ForAll(
                Small.ToArbitrary(),
                q =>
                    new SetUnionKnapsack(q.Costs, q.Bundles, q.Room)
                        .Solve()
                        .Items.SequenceEqual(new SetUnionKnapsack(q.Costs, q.Bundles, q.Room).Solve().Items)
            )
        );

    [Fact]
    public void A_closure_is_worth_no_more_than_its_bound_and_the_bound_is_close() =>
        Check.One(
            Config.QuickThrowOnFailure.WithMaxTest(1000),
            Prop.ForAll(
                (
                    from q in Small
                    from price in Gen.Choose(0, 60)
                    from places in Gen.Choose(-1, 1).ArrayOf(q.Costs.Length)
                    select (q, price / 3.0, places)
                ).ToArbitrary(),
                c =>
                {
                    var (q, price, places) = c;
                    sbyte[] put = [.. places.Select(p => (sbyte)p)];
                    var sack = new SetUnionKnapsack(q.Costs, q.Bundles, 1000);
                    var (items, atMost) = new MaxClosure(sack).Solve(price, put);
                    // Bundle by bundle: the relaxation counts a term once for each of its bundles.
                    double Value(int set) =>
                        sack.Bundles.Where(b => b.Items.All(i => (set >> i & 1) == 1)).Sum(b => b.Value)
                        - price * q.Costs.Where((_, i) => (set >> i & 1) == 1 && put[i] != 1).Sum();
                    var best = Enumerable
                        .Range(0, 1 << q.Costs.Length)
                        .Where(set => put.Select((p, i) => p == 0 || (set >> i & 1) == (p == 1 ? 1 : 0)).All(right => right))
                        .Max(Value);
                    Assert.InRange(atMost, best - 1e-6, best + 1e-4);
                    Assert.Equal(best, Value(Set(items)), 4);
                    Assert.All(put.Select((p, i) => (p, items[i])), x => Assert.True(x.p != 1 || x.Item2));
                }
            )
        );

    [Fact]
    public void A_large_question_fits_is_under_its_bound_and_loses_little_to_it()
    {
        var dice = new Random(5);
        int[] costs = [.. Enumerable.Range(0, 200).Select(_ => dice.Next(3, 12))];
        Bundle[] bundles =
        [
            .. Enumerable
                .Range(0, 350)
                .Select(t => new Bundle(
                    t,
                    Math.Round(Math.Exp(3 + 3 * dice.NextDouble())),
                    [.. Enumerable.Range(0, dice.Next(1, 4)).Select(_ => (int)(200 * dice.NextDouble() * dice.NextDouble())).Distinct()]
                )),
        ];
        var packed = new SetUnionKnapsack(costs, bundles, 250).Solve();
        Assert.True(costs.Where((_, i) => packed.Items[i]).Sum() <= 250);
        Assert.Equal(bundles.Where(b => b.Items.All(i => packed.Items[i])).Sum(b => b.Value), packed.Value, 6);
        Assert.InRange(packed.Value, packed.Bound * 0.97, packed.Bound * (1 + 1e-9));
    }

    [Fact]
    public void Where_everything_fits_everything_is_taken_and_where_nothing_does_nothing()
    {
        Bundle[] bundles = [new(0, 5, [0, 1]), new(1, 7, [2])];
        var all = new SetUnionKnapsack([1, 2, 3], bundles, 6).Solve();
        Assert.Equal((12.0, 12.0), (all.Value, all.Bound));
        var none = new SetUnionKnapsack([4, 4, 4], bundles, 3).Solve();
        Assert.Equal((0.0, 0.0), (none.Value, none.Bound));
        Assert.DoesNotContain(true, none.Items);
        Assert.Equal(0, new SetUnionKnapsack([], [], 10).Solve().Value);
    }
}
