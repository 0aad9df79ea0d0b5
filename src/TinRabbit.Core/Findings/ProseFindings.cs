using TinRabbit.Core.Matching;
using TinRabbit.Core.Measures;
using TinRabbit.Core.Platforms;
using TinRabbit.Core.Words;

namespace TinRabbit.Core.Findings;

/// <summary>The description, and the spelling of all that is read by people.</summary>
internal static class ProseFindings
{
    public static IEnumerable<Finding> Of(ListingToCheck draft, CancellationToken stop) =>
        Description(draft, stop).Concat(RepeatedLists(draft)).Concat(Spellings(draft));

    /// <summary>A sentence and where it stands.</summary>
    private readonly record struct Sentence(int Start, int End);

    private static IEnumerable<Finding> Description(ListingToCheck draft, CancellationToken stop)
    {
        if (draft.Role("body") is not { } field || draft.TextOf(field) is not { } text || Tokens.Of(text) is not { Count: > 0 } words)
            yield break;
        if (words.Count < draft.Threshold("descriptionMinWords"))
            yield return new(
                "description-short",
                Level.Should,
                field.Key,
                0,
                0,
                0,
                FindingTexts.DescriptionShort(words.Count, draft.Threshold("descriptionMinWords"))
            );
        if (IsUnfinished(field, text.TrimEnd()))
            yield return new(
                "description-unfinished",
                Level.Should,
                field.Key,
                0,
                words[^1].Start,
                words[^1].Length,
                FindingTexts.Unfinished(field, text[words[^1].Start..words[^1].End])
            );
        var title = draft.Role("title") is { } titleField ? Tokens.Of(draft.TextOf(titleField)) : [];
        if (
            title.Count > 1
            && words.Count >= title.Count
            && title.Select(t => t.Word).SequenceEqual(words.Take(title.Count).Select(t => t.Word))
        )
            yield return new(
                "begins-with-title",
                Level.Should,
                field.Key,
                0,
                words[0].Start,
                words[title.Count - 1].End - words[0].Start,
                FindingTexts.BeginsWithTitle(field)
            );
        var sentences = Sentences(text);
        var picks = draft.Terms.Select(t => KeyOf(draft, t.Text)).ToHashSet(StringComparer.Ordinal);
        foreach (var sentence in sentences.Where(s => IsList(draft, picks, text[s.Start..s.End])).Take(ListingCheck.MostOfOneKind))
            yield return new(
                "list-of-picks",
                Level.Should,
                field.Key,
                0,
                sentence.Start,
                sentence.End - sentence.Start,
                FindingTexts.ListOfPicks
            );
        var opening = sentences.Take((int)draft.Threshold("openingSentences")).ToList();
        var core = draft.Terms.Where(t => t.Fit == Fit.Core).ToList();
        if (
            opening.Count > 0
            && core.Count > 0
            && !Held(draft, text[opening[0].Start..opening[^1].End], core, stop).Any(t => t.Grade is Grade.Whole or Grade.Inflected)
        )
            yield return new(
                "opening-no-core",
                Level.Should,
                field.Key,
                0,
                opening[0].Start,
                opening[^1].End - opening[0].Start,
                FindingTexts.OpeningNoCore(opening.Count, field.Indexed)
            );
        foreach (var stuffed in Stuffed(draft, field, text, words.Count, stop))
            yield return stuffed;
    }

    private static IReadOnlyList<WeighedTerm> Held(
        ListingToCheck draft,
        string text,
        IReadOnlyList<WantedTerm> terms,
        CancellationToken stop
    ) => Weigher.Weigh(draft.Platform.OfOneText(), Platform.CopyOf(text), terms, stop).Terms;

    private static IEnumerable<Finding> Stuffed(ListingToCheck draft, Field field, string text, int words, CancellationToken stop)
    {
        var most = draft.Threshold("termPerHundredWords") * Math.Max(100, words) / 100;
        foreach (var term in Held(draft, text, draft.Terms, stop).Where(t => t.Grade is Grade.Whole or Grade.Inflected))
        {
            stop.ThrowIfCancellationRequested();
            var spans = term.Explain().Spans;
            if (spans.Count <= most)
                continue;
            var last = spans[^1];
            yield return new(
                "stuffed",
                Level.Should,
                field.Key,
                0,
                last.Start,
                last.Length,
                FindingTexts.Stuffed(term.Term.Text, spans.Count, words, draft.Threshold("termPerHundredWords"))
            );
        }
    }

    // It breaks off: at a word that leads to the next, at a sign that does not end a sentence, or at the limit.
    private static bool IsUnfinished(Field field, string text)
    {
        var last = Tokens.Of(text)[^1];
        if (text[^1] is ',' or ';' or '-' or '–' or '(' or '&')
            return true;
        if (last.End < text.Length)
            return false;
        return StopWords.Has(last.Word)
            || (
                field.Limit is { Max: { } max, Unit: var unit }
                && TextLength.Of(text, unit) > max - 3
                && text.AsSpan()[..last.Start].IndexOfAny(".!?") >= 0
            );
    }

    // Sentences of the description and the bullet points that list the same picks.
    private static IEnumerable<Finding> RepeatedLists(ListingToCheck draft)
    {
        var picks = draft.Terms.Select(t => KeyOf(draft, t.Text)).Where(k => k.Length > 0).ToHashSet(StringComparer.Ordinal);
        var seen = new HashSet<string>(StringComparer.Ordinal);
        foreach (var field in draft.Platform.Fields.Where(f => f.Role is "body" or "description" or "bullets"))
        {
            var texts = draft.Texts(field);
            for (var item = 0; item < texts.Count; item++)
                foreach (var sentence in Sentences(texts[item]))
                {
                    var said = texts[item]
                        [sentence.Start..sentence.End]
                        .Split([",", ";", " or ", " and "], StringSplitOptions.None)
                        .Select(p => WithoutFrame(KeyOf(draft, p)))
                        .Where(picks.Contains)
                        .Distinct()
                        .Order(StringComparer.Ordinal)
                        .ToList();
                    if (said.Count > 1 && !seen.Add(string.Join('|', said)))
                        yield return new(
                            "repeated-list",
                            Level.Should,
                            field.Key,
                            item,
                            sentence.Start,
                            sentence.End - sentence.Start,
                            FindingTexts.RepeatedList(said.Count)
                        );
                }
        }
    }

    // "also a nest box" is the pick "nest box".
    private static string WithoutFrame(string key)
    {
        string[] frames = ["it is also ", "also ", "a ", "an "];
        foreach (var frame in frames)
            if (key.StartsWith(frame, StringComparison.Ordinal))
                key = key[frame.Length..];
        return key;
    }

    private static List<Sentence> Sentences(string text)
    {
        var sentences = new List<Sentence>();
        var start = 0;
        for (var i = 0; i <= text.Length; i++)
        {
            var ends =
                i == text.Length
                || text[i] == '\n'
                || (text[i] is '.' or '!' or '?' && (i + 1 == text.Length || char.IsWhiteSpace(text[i + 1])));
            if (!ends)
                continue;
            var end = Math.Min(i + 1, text.Length);
            if (Tokens.Of(text[start..end]).Count > 0)
            {
                while (char.IsWhiteSpace(text[start]))
                    start++;
                while (end > start && char.IsWhiteSpace(text[end - 1]))
                    end--;
                sentences.Add(new(start, end));
            }

            start = Math.Min(i + 1, text.Length);
        }

        return sentences;
    }

    private static bool IsList(ListingToCheck draft, HashSet<string> picks, string sentence)
    {
        var words = Tokens.Of(sentence).Count;
        var parts = sentence.Split(',');
        if (words < draft.Threshold("listSentenceWords") || parts.Length < 2)
            return false;
        return parts.Where(p => picks.Contains(KeyOf(draft, p))).Sum(p => Tokens.Of(p).Count)
            >= draft.Threshold("listSentenceShare") * words;
    }

    private static string KeyOf(ListingToCheck draft, string text) =>
        string.Join(' ', Tokens.Of(text).Select(t => Fold.Key(t.Word, draft.Platform.Search.Folds)));

    // Tags and backend keywords may hold both on purpose; what a person reads should not.
    private static IEnumerable<Finding> Spellings(ListingToCheck draft)
    {
        var pairs = Spelling.Pairs.Where(p => p.British != p.American).ToList();
        var (british, american) = (pairs.Select(p => p.British).ToHashSet(), pairs.Select(p => p.American).ToHashSet());
        var found = (
            from field in draft.Platform.Fields
            where field.Shape is FieldShape.Line or FieldShape.Text or FieldShape.Lines or FieldShape.Rich
            from unit in draft.Texts(field).Select((t, i) => (Text: t, Item: i))
            from token in Tokens.Of(unit.Text)
            let region = british.Contains(token.Word) && !american.Contains(token.Word) ? "British"
            : american.Contains(token.Word) && !british.Contains(token.Word) ? "American"
            : null
            where region is not null
            select (Field: field, unit.Item, unit.Text, Token: token, Region: region)
        ).ToList();
        if (found.Select(f => f.Region).Distinct().Count() < 2)
            yield break;
        var own = draft.Platform.Spelling is { } spelling
            ? spelling.EndsWith("US", StringComparison.OrdinalIgnoreCase)
                ? "American"
                : "British"
            : found[0].Region;
        var usual = found.First(f => f.Region == own);
        foreach (var odd in found.Where(f => f.Region != own).Take(ListingCheck.MostOfOneKind))
        {
            var other = own == "American" ? Spelling.ToAmerican(odd.Token.Word) : pairs.First(p => p.American == odd.Token.Word).British;
            yield return new(
                "mixed-spelling",
                Level.Should,
                odd.Field.Key,
                odd.Item,
                odd.Token.Start,
                odd.Token.Length,
                FindingTexts.MixedSpelling(odd.Token.Word, odd.Region, usual.Token.Word, own),
                odd.Field.Shape == FieldShape.Rich
                    ? null
                    : new(
                        FindingTexts.Write(other),
                        odd.Field.Key,
                        draft.With(
                            odd.Field,
                            odd.Item,
                            odd.Text[..odd.Token.Start] + AsWritten(odd.Text[odd.Token.Start], other) + odd.Text[odd.Token.End..]
                        )
                    )
            );
        }
    }

    private static string AsWritten(char first, string word) => char.IsUpper(first) ? Capitals.First(word) : word;
}
