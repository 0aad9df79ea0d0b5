using TinRabbit.Core.Edits;
using TinRabbit.Core.Matching;
using TinRabbit.Core.Platforms;
using TinRabbit.Core.Words;

namespace TinRabbit.Core.Findings;

/// <summary>What must not be said, and what the facts do not bear out.</summary>
internal static class GuardFindings
{
    public static IEnumerable<Finding> Of(ListingToCheck draft)
    {
        var avoided = new AvoidedTerms(draft.Platform, [.. draft.Avoid.Select(a => a.Text)]);
        foreach (var (number, spans) in avoided.FindIn(draft.Copy))
        foreach (var span in spans.Take(ListingCheck.MostOfOneKind))
            yield return Forbidden("avoided", draft, span, FindingTexts.Avoided(draft.Avoid[number].Text, draft.Avoid[number].Reason));
        var banned = new AvoidedTerms(draft.Platform, draft.Platform.Banned);
        foreach (var (number, spans) in banned.FindIn(draft.Copy))
        foreach (var span in spans.Take(ListingCheck.MostOfOneKind))
            yield return Forbidden("banned", draft, span, FindingTexts.Banned(draft.Platform.Banned[number], draft.Platform.Name));
        foreach (var claim in Claims(draft))
            yield return claim;
        foreach (var promise in Promised(draft))
            yield return promise;
        foreach (var shout in Shouting(draft))
            yield return shout;
    }

    private static Finding Forbidden(string id, ListingToCheck draft, Span span, string why)
    {
        var field = draft.Platform.Find(span.Field)!;
        return new(
            id,
            Level.Must,
            span.Field,
            span.Item,
            span.Start,
            span.Length,
            why,
            Removal(draft, field, span.Item, span.Start, span.Length)
        );
    }

    /// <summary>The field without a stretch of its text; without the whole item where that is a phrase of a list.</summary>
    internal static Fix? Removal(ListingToCheck draft, Field field, int item, int start, int length)
    {
        if (field.Shape == FieldShape.Phrases)
            return new(FindingTexts.RemovePhrase, field.Key, draft.Without(field, item));
        if (field.Shape is FieldShape.Choices or FieldShape.Path or FieldShape.Rich || item >= draft.Texts(field).Count)
            return null;
        var text = draft.Texts(field)[item];
        return new(FindingTexts.Remove, field.Key, draft.With(field, item, Cut.Of(text, start, length)));
    }

    // One finding for each claim in each field, at its first place.
    private static IEnumerable<Finding> Claims(ListingToCheck draft)
    {
        if (draft.HeldFacts is not { } facts)
            yield break;
        foreach (var field in draft.Platform.Fields.Where(f => f.Shape != FieldShape.Path))
        {
            var seen = new HashSet<string>(StringComparer.OrdinalIgnoreCase);
            var texts = draft.Texts(field);
            for (var item = 0; item < texts.Count; item++)
            {
                var shopName = Names.In(texts[item], draft.ShopName);
                foreach (var claim in Facets.Unbacked(texts[item], facts, KindOf(field)))
                    if (!Names.Cover(shopName, claim) && seen.Add(claim.Word))
                        yield return new(
                            "claim",
                            Level.Should,
                            field.Key,
                            item,
                            claim.Start,
                            claim.Length,
                            FindingTexts.Claim(claim.Word, claim.Facet),
                            field.Shape is FieldShape.Phrases or FieldShape.Words
                                ? Removal(draft, field, item, claim.Start, claim.Length)
                                : null
                        )
                        {
                            Claim = claim,
                        };
            }
        }
    }

    // Titles and lists of words claim by every word; sentences only where a word is about the product.
    private static TextKind KindOf(Field field) =>
        field.Shape is FieldShape.Text or FieldShape.Lines or FieldShape.Rich || field.Role == "meta" ? TextKind.Prose : TextKind.Title;

    private static IEnumerable<Finding> Promised(ListingToCheck draft)
    {
        var promises = new AvoidedTerms(draft.Platform, [.. Promises.Select(p => p.Phrase)]);
        foreach (var (number, spans) in promises.FindIn(draft.Copy))
        foreach (var span in spans.Take(ListingCheck.MostOfOneKind))
        {
            var field = draft.Platform.Find(span.Field)!;
            var text = span.Item < draft.Texts(field).Count ? draft.Texts(field)[span.Item] : "";
            if (!IsDenied(text, span.Start))
                yield return new(
                    "promise",
                    Level.Should,
                    span.Field,
                    span.Item,
                    span.Start,
                    span.Length,
                    FindingTexts.Promise(text.Substring(span.Start, span.Length), Promises[number].IsHealth),
                    field.Shape is FieldShape.Phrases or FieldShape.Words ? Removal(draft, field, span.Item, span.Start, span.Length) : null
                );
        }
    }

    private static readonly IReadOnlyList<(string Phrase, bool IsHealth)> Promises =
    [
        .. WordData.Lines("promises.txt", "Findings").Select(l => l.Split(" ; ")).Select(p => (p[1], p[0] == "health")),
    ];

    // "It does not cure", "no detox": nothing is promised.
    private static bool IsDenied(string text, int start) =>
        Tokens
            .Of(text[..start])
            .TakeLast(3)
            .Any(t => t.Word is "not" or "no" or "never" or "without" or "doesn't" or "don't" or "cannot" or "can't" or "isn't");

    private static IEnumerable<Finding> Shouting(ListingToCheck draft)
    {
        foreach (
            var field in draft.Platform.Fields.Where(f =>
                f.Shape is FieldShape.Line or FieldShape.Text or FieldShape.Lines or FieldShape.Phrases
            )
        )
        {
            var texts = draft.Texts(field);
            for (var item = 0; item < texts.Count; item++)
            {
                var text = texts[item];
                var loud = Tokens.Of(text).Where(t => Shouts(text.AsSpan(t.Start, t.Length), draft.Threshold("shoutingLetters"))).ToList();
                if (loud.Count < draft.Threshold("shoutingWords"))
                    continue;
                var calm = text.ToCharArray();
                foreach (var token in loud)
                    for (var i = token.Start; i < token.End; i++)
                        if (i > token.Start || token.Start > 0)
                            calm[i] = char.ToLowerInvariant(calm[i]);
                yield return new(
                    "shouting",
                    Level.Should,
                    field.Key,
                    item,
                    loud[0].Start,
                    loud[^1].End - loud[0].Start,
                    FindingTexts.Shouting(loud.Count, field),
                    new(FindingTexts.LowerCase, field.Key, draft.With(field, item, new(calm)))
                );
            }
        }
    }

    private static bool Shouts(ReadOnlySpan<char> word, double letters)
    {
        var capitals = 0;
        foreach (var c in word)
            if (char.IsLower(c))
                return false;
            else if (char.IsUpper(c))
                capitals++;
        return capitals >= letters;
    }
}
