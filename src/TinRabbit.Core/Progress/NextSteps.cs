using System.Globalization;

namespace TinRabbit.Core.Progress;

/// <summary>What to do next for a listing.</summary>
public static class NextSteps
{
    /// <summary>From this gain in grip on, an edit comes before publishing.</summary>
    public const double LargeGain = 0.5;

    // Fewer usual words say little.
    private const int FewestUsual = 10;

    // One pick in so many is few.
    private const int FewOfPicks = 5;

    /// <summary>All that is useful now, what comes first being first.</summary>
    public static IReadOnlyList<StepKind> Of(ListingState s)
    {
        var isPublished = s.PublishedAt is not null && !s.HasChanged;
        var isShown = isPublished && s.ShownAt <= s.Now;
        var isChecked = s.CheckedAt >= s.ShownAt;
        var manyWait = s.WaitingForFacts * FewOfPicks >= s.Picks;
        (StepKind Kind, bool IsUseful)[] inOrder =
        [
            (StepKind.PickTerms, s.Picks == 0),
            (StepKind.FixRequired, s.Required > 0),
            (StepKind.PickUsual, s.Picks > 0 && s.Usual.All >= FewestUsual && s.Usual.Held * 2 < s.Usual.All),
            (StepKind.FillFacts, s.WaitingForFacts > 0 && manyWait),
            (StepKind.ChooseLead, s is { Picks: > 0, HasLead: false }),
            (StepKind.Move, s.BestGain >= LargeGain),
            // Facts that few picks wait for come after what gains more.
            (StepKind.FillFacts, s.WaitingForFacts > 0 && !manyWait),
            (StepKind.PickMore, s is { Picks: > 0, EmptyTags: > 0, BestGain: 0 }),
            (StepKind.Publish, s is { Picks: > 0, Required: 0 } && !isPublished),
            (StepKind.Wait, isPublished && !isShown),
            (StepKind.Check, isShown && s.Picks > 0 && !isChecked),
            (StepKind.NotFound, isChecked && s.LackWords > 0),
            (StepKind.RankFell, isChecked && s.Fell > 0),
            (StepKind.SmallMove, s.BestGain is > 0 and < LargeGain),
        ];
        return [.. inOrder.Where(k => k.IsUseful).Select(k => k.Kind)];
    }

    /// <summary>What is done, as a sentence without its full stop.</summary>
    /// <param name="kind">The step; not a move, whose own words say more.</param>
    /// <param name="s">The listing.</param>
    /// <param name="platform">The platform's name.</param>
    public static string Text(StepKind kind, ListingState s, string platform) =>
        kind switch
        {
            StepKind.PickTerms => "Pick the terms that shoppers should find this listing by",
            StepKind.FixRequired => $"Fix {Count(s.Required, "required finding")}: {platform} refuses the listing",
            StepKind.FillFacts => s.WaitingForFacts == 1
                ? "Fill the facts: 1 pick waits for them"
                : $"Fill the facts: {s.WaitingForFacts:#,0} picks wait for them",
            StepKind.ChooseLead => $"Make “{s.Strongest}” the lead",
            StepKind.PickUsual =>
                $"Pick more terms: {(s.Picks == 1 ? "the 1 pick has" : $"the {s.Picks:#,0} picks have")} {s.Usual.Held} of the {s.Usual.All} words that the titles of the first listings use most",
            StepKind.PickMore =>
                $"Pick more terms: {Count(s.EmptyTags, "tag")} {(s.EmptyTags == 1 ? "is" : "are")} empty and no pick needs {(s.EmptyTags == 1 ? "it" : "them")}",
            StepKind.Publish => s.PublishedAt is null ? "Publish it" : "Publish what you changed",
            StepKind.Wait => "Check it when the search results have updated",
            StepKind.Check => "Check whether it is found",
            StepKind.NotFound =>
                $"Found for {s.Found:#,0} of {Count(s.Checked, "term")}: {Count(s.LackWords, "term")} {(s.LackWords == 1 ? "lacks" : "lack")} a word",
            StepKind.RankFell =>
                $"Rank fell for {Count(s.Fell, "term")} since {s.FellSince?.ToString("MMMM d", CultureInfo.InvariantCulture)}",
            _ => "Make the move that gains most",
        };

    /// <summary>Why it comes first, as a sentence.</summary>
    public static string Why(StepKind kind, ListingState s) =>
        kind switch
        {
            StepKind.PickTerms => "Reach, grip, fills and findings all rest on the picks.",
            StepKind.FixRequired => "A listing that is refused is found by nobody.",
            StepKind.FillFacts => "A pick that says more than the facts is used by no fill and no move.",
            StepKind.ChooseLead => "The title and several checks are built around the lead. This pick counts for most.",
            StepKind.Move => "Of all single edits it gains most grip, and it is done before the listing is published.",
            StepKind.PickUsual => "Whatever is written for the picks finds no shopper who types the other words.",
            StepKind.PickMore => "Nothing else is left to improve with the picks that there are.",
            StepKind.Publish => s switch
            {
                { PublishedAt: null } => "Nothing else is left to do before it can be found.",
                { Checked: > 0 } => $"Shoppers find the text before: {s.Found:#,0} of {Count(s.Checked, "term")} found it.",
                _ => "Shoppers still find the text before.",
            },
            StepKind.Wait => "The market’s search still shows the text before.",
            StepKind.Check => "Only the market itself says whether it finds what was published.",
            StepKind.NotFound => "A search whose words are not all there never shows the listing.",
            StepKind.RankFell => "The order of the results has changed since the check before.",
            _ => "All else is done.",
        };

    private static string Count(int n, string one) => $"{n.ToString("#,0", CultureInfo.InvariantCulture)} {one}{(n == 1 ? "" : "s")}";
}
