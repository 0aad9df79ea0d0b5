using TinRabbit.Core.Calibrating;
using TinRabbit.Core.Comparing;
using TinRabbit.Core.Watching;

namespace TinRabbit.Server.Features.Watch;

/// <summary>What Watch says: changes to the journal, verdicts, and offers to correct a profile.</summary>
internal static class WatchMessages
{
    public const string NotKnownThere =
        "This market doesn’t know the listing, so it can’t be asked. Send the listing first, or paste what you found yourself.";

    public static string AddedNote(string text) => $"Added the note “{text}”";

    public static string ChangedChangeNote(string text) => $"Changed the note “{text}”";

    public static string AddedCheck(int terms) => $"Added a check of {terms:#,0} {(terms == 1 ? "term" : "terms")}";

    public static string AddedChecks(int terms, int days) =>
        days == 1 ? AddedCheck(terms) : $"Added checks of {terms:#,0} {(terms == 1 ? "term" : "terms")} on {days:#,0} days";

    public static string Unfollowed(IReadOnlyList<string> terms) => $"Stopped checking {Named(terms)}";

    /// <summary>The verdict of a comparison.</summary>
    public static string Effect(ChangeEffect effect)
    {
        var (measure, found) = (effect.Measure, effect.Found);
        var (before, after) = (Daily(effect.DailyBefore ?? 0), Daily(effect.DailyAfter ?? 0));
        var name = measure.ToString().ToLowerInvariant();
        var left = BeforeAfter.LongestWindow - found.Days;
        var size = found.Difference is null ? $"from {before} to {after} a day" : $"by {Size(found.Difference)} ({Range(found)})";
        var soFar = found.Difference is null ? "" : $" ({Range(found)} so far)";
        return found switch
        {
            _ when effect.IsTooFew => $"Too few to tell: less than one a day ({name})",
            { Days: 0 } or { Verdict: Verdict.Unclear } when effect.IsCut => "Can’t tell: the next change came too soon",
            { Days: 0 } when effect.IsCutBefore => "Can’t tell: the change before it was less than a week earlier",
            { Days: 0, DaysNeeded: { } days } => $"Can’t tell yet: about {More(days)}",
            { Days: 0 } when effect.DaysAfter == 0 => $"Can’t tell: no {name} are known after the change",
            { Days: 0 } => $"Can’t tell: less than a week of {name} is known before the change",
            { Verdict: Verdict.Up } => $"{Named(measure)} rose {size}",
            { Verdict: Verdict.Down } => $"{Named(measure)} fell {size}",
            { DaysNeeded: { } days } when days <= left => $"Can’t tell yet: about {More(days)}{soFar}",
            _ when left > 0 => $"Can’t tell yet: look again in {Days(left)}{soFar}",
            _ when found.Difference is null => $"No clear difference: {before} and then {after} a day",
            _ => $"No clear difference ({Range(found)})",
        };
    }

    /// <summary>What a change did to the ranks.</summary>
    public static string Ranks(RankEffect effect) =>
        effect switch
        {
            { DaysBefore: 0 } => "Can’t tell: no checks are known of the days before the change",
            { DaysBefore: < RankEffect.LeastDays } =>
                $"Too few to say: checks of {Days(effect.DaysBefore)} before the change; {RankEffect.LeastDays} are needed",
            { DaysAfter: < RankEffect.LeastDays } =>
                $"Can’t tell yet: checks of {Days(effect.DaysAfter)} after the change; {RankEffect.LeastDays} are needed",
            { Terms: < RankEffect.LeastTerms } =>
                $"Too few to say: {effect.Terms} {(effect.Terms == 1 ? "term finds" : "terms find")} it on both sides; {RankEffect.LeastTerms} are needed",
            { Verdict: Verdict.Up } => $"Ranks are better: the median went from {effect.Before:#,0.#} to {effect.After:#,0.#}",
            { Verdict: Verdict.Down } => $"Ranks are worse: the median went from {effect.Before:#,0.#} to {effect.After:#,0.#}",
            _ => $"No clear difference: the median rank was {effect.Before:#,0.#} and is {effect.After:#,0.#}",
        };

    /// <summary>A change of a profile that would explain what was found.</summary>
    public static string OfferedChange(ProfileChange change, Core.Platforms.Platform platform)
    {
        var field = platform.Find(change.Name)?.Label ?? change.Name;
        return change.Kind switch
        {
            ProfileChangeKind.Fold =>
                $"{platform.Name} seems {(change.On ? "to treat" : "not to treat")} {FoldName(change.Name)} as the same word",
            ProfileChangeKind.Field => $"{platform.Name} seems {(change.On ? "to search" : "not to search")} {field}",
            ProfileChangeKind.IndexedFirst => $"{platform.Name} seems to search all of {field}, not only its beginning",
            _ => change.On
                ? $"{platform.Name} seems to find listings whose words are in different fields"
                : $"{platform.Name} seems to find only listings that have all words in one field",
        };
    }

    public static string OfferedWeights(string platform) => $"Weights that order the results of {platform} better";

    private static string FoldName(string fold) =>
        fold switch
        {
            "diacritics" => "letters with and without accents",
            "possessive" => "possessives (women’s, womens)",
            "plural" => "singular and plural",
            "compound" => "one word or two (birdhouse, bird house)",
            _ => "British and American spelling",
        };

    /// <summary>What changes of one kind did on average.</summary>
    public static string Pooled(PooledDifference pooled, DailyMeasure measure) =>
        pooled.Difference is null
            ? $"Not enough data: {pooled.Count} of at least {PooledDifference.Least} changes that can be compared"
            : pooled.Verdict switch
            {
                Verdict.Up => $"{Named(measure)} rose by {Size(pooled.Difference)} on average ({Range(pooled.Low, pooled.High)})",
                Verdict.Down => $"{Named(measure)} fell by {Size(pooled.Difference)} on average ({Range(pooled.Low, pooled.High)})",
                _ => $"No clear difference on average ({Range(pooled.Low, pooled.High)})",
            };

    private static string Days(int days) => days == 1 ? "1 day" : $"{days:#,0} days";

    private static string More(int days) => days == 1 ? "1 more day" : $"{days:#,0} more days";

    private static string Daily(double count) => count < 10 ? $"{count:0.#}" : $"{count:#,0}";

    private static string Size(double? percent) => $"{Math.Abs(percent ?? 0):#,0}%";

    private static string Range(BeforeAfter found) => Range(found.Low, found.High);

    private static string Range(double? low, double? high) => $"between {Signed(low)} and {Signed(high)}";

    private static string Signed(double? percent) =>
        Math.Round(percent ?? 0) switch
        {
            > 0 and var up => $"+{up:#,0}%",
            < 0 and var down => $"−{-down:#,0}%",
            _ => "0%",
        };

    private static string Named(DailyMeasure measure) => measure.ToString();

    private static string Named(IReadOnlyList<string> texts) => texts.Count == 1 ? $"“{texts[0]}”" : $"{texts.Count:#,0} terms";

    public static string DeletedSampleData(int checks, int figures, int notes, int terms)
    {
        string[] parts =
        [
            .. new (int Count, string One, string Many)[]
            {
                (checks, "check", "checks"),
                (figures, "day of figures", "days of figures"),
                (notes, "note", "notes"),
                (terms, "term", "terms"),
            }
                .Where(p => p.Count > 0)
                .Select(p => $"{p.Count:#,0} {(p.Count == 1 ? p.One : p.Many)}"),
        ];
        return $"Deleted sample data: {(parts.Length > 0 ? string.Join(", ", parts) : "nothing was left")}";
    }
}
