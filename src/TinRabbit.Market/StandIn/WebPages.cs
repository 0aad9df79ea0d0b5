using Humanizer;
using TinRabbit.Core;
using TinRabbit.Core.Words;

namespace TinRabbit.Market.StandIn;

/// <summary>The pages that a web search finds: of rival shops, guides and lists. Where a term means something else in the country, so do its pages.</summary>
internal sealed class WebPages(Vocabulary vocabulary, string country, DeterministicRandom random)
{
    private const int PagesOfHead = 70;
    private const Folds Search = Folds.Diacritics | Folds.Possessive | Folds.Plural | Folds.Compound | Folds.Spelling;

    /// <summary>The pages for a term, best first: those with all its words before others, in its order, near the front.</summary>
    public IReadOnlyList<WebResult> Ranked(string term, int most)
    {
        var words = Tokens.Of(term).Select(t => Key(t.Word)).Where(w => !StopWords.Has(w)).ToList();
        if (words.Count == 0 || HeadOf(term) is not { } head)
            return [];
        var meaning = vocabulary.Elsewhere.FirstOrDefault(e => e.Country == country && e.Head == head.Text).Meaning;
        return
        [
            .. Enumerable
                .Range(0, PagesOfHead)
                .Select(i => meaning is null ? Page(head, random.For(head.Text).For(i)) : OtherPage(meaning, random.For(meaning).For(i)))
                .Select((p, i) => (Page: p, Score: Score(p, words) + 0.2 * random.For(term).For(i).Uniform))
                .Where(p => p.Score > 0.5)
                .OrderByDescending(p => p.Score)
                .Take(most)
                .Select(p => p.Page),
        ];
    }

    // The longest head in the term; otherwise one that shares its last word.
    private Head? HeadOf(string term)
    {
        var key = $" {Tokens.Key(term)} ";
        return vocabulary
                .Heads.Where(h => key.Contains($" {h.Text} ", StringComparison.Ordinal))
                .OrderByDescending(h => h.Text.Length)
                .FirstOrDefault()
            ?? vocabulary.Heads.FirstOrDefault(h => Tokens.Of(term).Any(t => Key(t.Word) == Key(h.Text.Split(' ')[^1])));
    }

    private static double Score(WebResult page, List<string> words)
    {
        var title = Tokens.Of(page.Title).Select(t => Key(t.Word)).ToList();
        var all = title.Concat(Tokens.Of(page.Description).Select(t => Key(t.Word))).ToHashSet(StringComparer.Ordinal);
        var complete = (double)words.Count(all.Contains) / words.Count;
        var inTitle = (double)words.Count(title.Contains) / words.Count;
        var at = string.Join(' ', title).IndexOf(string.Join(' ', words), StringComparison.Ordinal);
        return complete + inTitle + (at < 0 ? 0 : 1 - 0.01 * at);
    }

    private WebResult Page(Head head, DeterministicRandom random)
    {
        var fitting = vocabulary.Modifiers.Where(m => m.Groups.Intersect(head.Groups).Any() && m.Countries.Contains(country)).ToList();
        string Some(string why) => fitting.Count == 0 ? "" : Said(fitting[random.For(why).Below(fitting.Count)], head.Text);
        var (one, two) = (Some("one"), Some("two"));
        var shop = vocabulary.Shops[random.For("shop").Below(vocabulary.Shops.Count)];
        var several = head.Text.Pluralize(inputIsKnownToBeSingular: false);
        return random.For("kind").Uniform switch
        {
            < 0.4 => new(
                shop,
                $"{Capitals.First(one)} – {shop}",
                $"{Capitals.First(one)}, made to last. Order {two} and have it within a week.",
                WebResultKind.Product
            ),
            < 0.65 => new(
                shop,
                $"{Capitals.First(several)}: {one} and more – {shop}",
                $"Browse our {several}, from {one} to {two}. Free advice from people who use them.",
                WebResultKind.Category
            ),
            < 0.85 => new(
                "The Hedge Almanac",
                $"How to choose a {head.Text}: a guide",
                $"What matters in a {head.Text}, where to put it, and when. With advice on {one}.",
                WebResultKind.Guide
            ),
            _ => new(
                "Ten of Everything",
                $"The {8 + random.For("count").Below(9)} best {several} of the year",
                $"We compared {several}: {one}, {two} and others. See which did best.",
                WebResultKind.List
            ),
        };
    }

    private WebResult OtherPage(string meaning, DeterministicRandom random)
    {
        var shop = vocabulary.Shops[random.For("shop").Below(vocabulary.Shops.Count)];
        var style = (string[])["vintage", "modern", "small", "large", "painted", "cheap", "handmade", "antique"];
        var one = $"{style[random.For("style").Below(style.Length)]} {meaning}";
        return random.For("kind").Uniform < 0.7
            ? new(
                shop,
                $"{Capitals.First(one)} – {shop}",
                $"{Capitals.First(one)} for the living room. Delivered free.",
                WebResultKind.Product
            )
            : new(
                "Ten of Everything",
                $"{Capitals.First(meaning)}: 10 ideas",
                $"Ideas for a {meaning} in every style.",
                WebResultKind.List
            );
    }

    private static string Said(Modifier modifier, string head) => modifier.Before ? $"{modifier.Text} {head}" : $"{head} {modifier.Text}";

    private static string Key(string word) => Fold.Key(word, Search);
}
