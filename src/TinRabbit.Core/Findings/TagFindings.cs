using TinRabbit.Core.Platforms;
using TinRabbit.Core.Words;

namespace TinRabbit.Core.Findings;

/// <summary>Tags: one twice, one only in another order, the shop's name.</summary>
internal static class TagFindings
{
    public static IEnumerable<Finding> Of(Draft draft)
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
                yield return new("same-tag", Level.Should, field.Key, i, 0, tags[i].Length, $"“{tags[i]}” is {field.Label.ToLowerInvariant()} {same + 1} again: the slot is wasted.", new("Take it out", field.Key, draft.Without(field, i)));
            else if (sorted.TryGetValue(bag, out var other))
                yield return new("tag-reordered", Level.Should, field.Key, i, 0, tags[i].Length, $"“{tags[i]}” only puts the words of “{tags[other]}” in another order: other words in the slot would open more.", new("Take it out", field.Key, draft.Without(field, i)));
            exact.TryAdd(key, i);
            sorted.TryAdd(bag, i);
        }

        if (draft.Threshold("shopNameInTags") > 0 && draft.ShopName is { Length: > 0 } shop && Tokens.Key(shop) is { Length: > 0 } name && !tags.Any(t => GuardFindings.ShopNameIn(t, shop) is not null))
            yield return new("shop-name", Level.Should, field.Key, 0, 0, 0, $"No tag says “{shop}”: a shopper who remembers only the shop's name does not find this.",
                (field.Limit?.MaxItems is not { } most || tags.Count(t => !string.IsNullOrWhiteSpace(t)) < most) && (field.Limit?.Max is not { } max || Room.Measure(name, field.Limit.Unit) <= max)
                    ? new("Add it", field.Key, new FieldValue.Items([.. tags.Where(t => !string.IsNullOrWhiteSpace(t)), name]))
                    : null);
    }
}
