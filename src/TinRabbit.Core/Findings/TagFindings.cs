using TinRabbit.Core.Platforms;
using TinRabbit.Core.Words;

namespace TinRabbit.Core.Findings;

/// <summary>Tags: one twice, one only in another order, the shop's name.</summary>
internal static class TagFindings
{
    public static IEnumerable<Finding> Of(ListingToCheck draft)
    {
        if (draft.Role("tags") is not { } field)
            yield break;
        var tags = draft.Texts(field);
        var (exact, sorted) = (new Dictionary<string, int>(StringComparer.Ordinal), new Dictionary<string, int>(StringComparer.Ordinal));
        for (var i = 0; i < tags.Count; i++)
        {
            var words = Tokens.Of(tags[i]).Select(t => Fold.Letters(t.Word)).ToArray();
            if (words.Length == 0)
                continue;
            var (key, bag) = (string.Join(' ', words), string.Join(' ', words.Order(StringComparer.Ordinal)));
            if (exact.TryGetValue(key, out var same))
                yield return new(
                    "same-tag",
                    Level.Should,
                    field.Key,
                    i,
                    0,
                    tags[i].Length,
                    FindingTexts.SameTag(tags[i], field, same + 1),
                    new(FindingTexts.Remove, field.Key, draft.Without(field, i))
                );
            else if (sorted.TryGetValue(bag, out var other))
                yield return new(
                    "tag-reordered",
                    Level.Should,
                    field.Key,
                    i,
                    0,
                    tags[i].Length,
                    FindingTexts.TagReordered(tags[i], tags[other]),
                    new(FindingTexts.Remove, field.Key, draft.Without(field, i))
                );
            exact.TryAdd(key, i);
            sorted.TryAdd(bag, i);
        }

        if (
            draft.Threshold("shopNameInTags") > 0
            && draft.ShopName is { Length: > 0 } shop
            && Tokens.Key(shop) is { Length: > 0 } name
            && !tags.Any(t => Names.In(t, shop).Count > 0)
        )
            yield return new(
                "shop-name",
                Level.Should,
                field.Key,
                0,
                0,
                0,
                FindingTexts.ShopName(shop),
                (field.Limit?.MaxItems is not { } most || tags.Count(t => !string.IsNullOrWhiteSpace(t)) < most)
                && (field.Limit?.Max is not { } max || TextLength.Of(name, field.Limit.Unit) <= max)
                    ? new(FindingTexts.Add, field.Key, new FieldValue.Items([.. tags.Where(t => !string.IsNullOrWhiteSpace(t)), name]))
                    : null
            );
    }
}
