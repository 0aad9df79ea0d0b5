using FsCheck;
using FsCheck.Fluent;
using TinRabbit.Core.Progress;
using TinRabbit.Core.Rivals;

namespace TinRabbit.Core.Tests;

/// <summary>What comes next for a listing: the order of the job, and nothing that is done already.</summary>
public class NextStepsTests
{
    private static readonly DateTime Monday = new(2026, 5, 4, 9, 0, 0);

    private static readonly ListingState Done = new()
    {
        Picks = 22,
        HasLead = true,
        PublishedAt = Monday,
        ShownAt = Monday,
        Now = Monday.AddDays(1),
        CheckedAt = Monday.AddDays(1),
        Checked = 22,
        Found = 22,
    };

    private static readonly Gen<ListingState> States =
        from picks in Gen.Elements(0, 1, 22)
        from waiting in Gen.Choose(0, picks)
        from lead in Gen.Elements(true, false)
        from required in Gen.Choose(0, 2)
        from gain in Gen.Elements(0, 0.2, 8)
        from empty in Gen.Choose(0, 4)
        from published in Gen.Elements<DateTime?>(null, Monday)
        from changed in Gen.Elements(true, false)
        from shown in Gen.Elements(Monday, Monday.AddDays(2))
        from isChecked in Gen.Elements<DateTime?>(null, Monday.AddDays(-1), Monday.AddDays(1))
        from lack in Gen.Choose(0, 3)
        from fell in Gen.Choose(0, 3)
        select new ListingState
        {
            Picks = picks,
            WaitingForFacts = waiting,
            HasLead = lead && picks > 0,
            Required = required,
            BestGain = picks > 0 ? gain : 0,
            EmptyTags = empty,
            PublishedAt = published,
            HasChanged = published is not null && changed,
            ShownAt = published is null ? null : shown,
            Now = Monday.AddDays(1),
            CheckedAt = isChecked,
            Checked = 22,
            Found = 22 - lack,
            LackWords = lack,
            Fell = fell,
            FellSince = new(2026, 5, 1),
        };

    [Fact]
    public void Each_step_comes_once_says_what_and_why_and_none_contradicts_another() =>
        Prop.ForAll(
                States.ToArbitrary(),
                s =>
                {
                    var steps = NextSteps.Of(s);
                    Assert.Distinct(steps);
                    Assert.All(
                        steps,
                        k => Assert.True(NextSteps.Text(k, s, "Hedgerow Fair").Length > 5 && NextSteps.Why(k, s).EndsWith('.'))
                    );
                    Assert.Equal(s.Picks == 0, steps.Contains(StepKind.PickTerms));
                    Assert.False(steps.Contains(StepKind.Publish) && (steps.Contains(StepKind.Check) || steps.Contains(StepKind.Wait)));
                    Assert.False(
                        steps.Contains(StepKind.Check) && (steps.Contains(StepKind.NotFound) || steps.Contains(StepKind.RankFell))
                    );
                    Assert.False(steps.Contains(StepKind.Publish) && s.Required > 0);
                    Assert.False(steps.Contains(StepKind.Move) && steps.Contains(StepKind.SmallMove));
                    if (s.Required > 0 && s.Picks > 0)
                        Assert.Equal(StepKind.FixRequired, steps[0]);
                }
            )
            .QuickCheckThrowOnFailure();

    [Fact]
    public void The_job_goes_on_step_by_step_to_nothing()
    {
        var s = new ListingState { EmptyTags = 4, Strongest = "bird house" };
        Assert.Equal(StepKind.PickTerms, First());
        s = s with { Picks = 10, WaitingForFacts = 1, BestGain = 8.1 };
        Assert.Equal((StepKind.ChooseLead, "Make “bird house” the lead"), (First(), NextSteps.Text(First(), s, "X")));
        s = s with { HasLead = true };
        Assert.Equal([StepKind.Move, StepKind.FillFacts, StepKind.Publish], NextSteps.Of(s));
        s = s with { WaitingForFacts = 2 };
        Assert.Equal((StepKind.FillFacts, "Fill the facts: 2 picks wait for them"), (First(), NextSteps.Text(First(), s, "X")));
        s = s with { WaitingForFacts = 0, BestGain = 0 };
        Assert.Equal(
            (StepKind.PickMore, "Pick more terms: 4 tags are empty and no pick needs them"),
            (First(), NextSteps.Text(First(), s, "X"))
        );
        s = s with { EmptyTags = 0 };
        Assert.Equal((StepKind.Publish, "Publish it"), (First(), NextSteps.Text(First(), s, "X")));
        s = s with { PublishedAt = Monday, ShownAt = Monday.AddDays(1), Now = Monday };
        Assert.Equal(StepKind.Wait, First());
        s = s with { Now = Monday.AddDays(1) };
        Assert.Equal(StepKind.Check, First());
        s = s with { CheckedAt = Monday.AddDays(2), Checked = 10, Found = 8, LackWords = 1 };
        Assert.Equal((StepKind.NotFound, "Found for 8 of 10 terms: 1 term lacks a word"), (First(), NextSteps.Text(First(), s, "X")));
        s = s with { LackWords = 0, Fell = 5, FellSince = new(2026, 10, 21) };
        Assert.Equal((StepKind.RankFell, "Rank fell for 5 terms since October 21"), (First(), NextSteps.Text(First(), s, "X")));
        Assert.Empty(NextSteps.Of(Done));
        Assert.Contains("8 of 10 terms", NextSteps.Why(StepKind.Publish, s with { HasChanged = true }));

        StepKind First() => NextSteps.Of(s)[0];
    }

    [Fact]
    public void Few_of_the_usual_words_come_before_the_text_and_are_counted()
    {
        var s = Done with { Picks = 6, BestGain = 8, Usual = new(8, 20) };
        Assert.Equal(StepKind.PickUsual, NextSteps.Of(s)[0]);
        Assert.Equal(
            "Pick more terms: the 6 picks have 8 of the 20 words that the titles of the first listings use most",
            NextSteps.Text(StepKind.PickUsual, s, "X")
        );
        Assert.DoesNotContain(StepKind.PickUsual, NextSteps.Of(s with { Usual = new(10, 20) }));
        Assert.DoesNotContain(StepKind.PickUsual, NextSteps.Of(s with { Usual = new(0, 9) }));
    }

    [Fact]
    public void Usual_words_are_those_of_every_fifth_title_in_any_form()
    {
        string[] titles =
        [
            .. Enumerable.Range(0, 10).Select(i => i < 2 ? "A knife and the sharpening stones 1000, whetstone" : "Knives for the kitchen"),
        ];
        // knife, sharpening, stone, whetstone, kitchen: stop words and numbers are none.
        Assert.Equal(new UsualWords(2, 5), UsualWords.Of(titles, ["kitchen knife"]));
        Assert.Equal(new UsualWords(3, 5), UsualWords.Of(titles, ["kitchen knives", "stone"]));
        Assert.Equal(default, UsualWords.Of(titles[..9], ["kitchen knife"]));
    }
}
