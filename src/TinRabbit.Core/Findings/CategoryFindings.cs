using TinRabbit.Core.Platforms;

namespace TinRabbit.Core.Findings;

/// <summary>Category and attributes: how deep, and what rivals fill.</summary>
internal static class CategoryFindings
{
    public static IEnumerable<Finding> Of(ListingToCheck draft)
    {
        var path = new List<string>();
        if (draft.Platform.Fields.FirstOrDefault(f => f.Shape == FieldShape.Path && f.Tree.Count > 0) is { } field)
        {
            path =
            [
                .. draft.Texts(field).SelectMany(t => t.Split('>', StringSplitOptions.TrimEntries | StringSplitOptions.RemoveEmptyEntries)),
            ];
            if (path.Count > 0 && Category.At(field.Tree, path) is null)
                yield return new(
                    "category-unknown",
                    Level.Must,
                    field.Key,
                    0,
                    0,
                    0,
                    FindingTexts.CategoryUnknown(path, draft.Platform.Name)
                );
            else if (path.Count > 0 && Category.At(field.Tree, path) is { Under.Count: > 0 } at)
            {
                var opens = AttributesOf(draft).Where(a => at.Under.Any(u => a.Category == u.Name)).Select(a => a.Name).Distinct().ToList();
                yield return new(
                    "category-deeper",
                    Level.Should,
                    field.Key,
                    0,
                    0,
                    0,
                    FindingTexts.CategoryDeeper(at.Name, at.Under.Select(u => u.Name), opens)
                );
            }
        }

        if (draft.Platform.Fields.FirstOrDefault(f => f.Shape == FieldShape.Choices) is not { } choices)
            yield break;
        var filled = draft.Copy.GetValueOrDefault(choices.Key) is FieldValue.Choices c
            ? c
                .Values.Where(v => v.Value.Any(t => !string.IsNullOrWhiteSpace(t)))
                .Select(v => v.Key)
                .ToHashSet(StringComparer.OrdinalIgnoreCase)
            : [];
        foreach (
            var rival in draft
                .Rivals.Where(r => r.Share >= draft.Threshold("rivalsFillShare") && !filled.Contains(r.Name))
                .OrderByDescending(r => r.Share)
        )
            if (choices.Attributes.Count > 0 && !choices.Attributes.Any(a => a.Name == rival.Name))
                yield return new(
                    "attribute-unlisted",
                    Level.Fine,
                    choices.Key,
                    0,
                    0,
                    0,
                    FindingTexts.AttributeUnlisted(rival.Name, rival.Share, draft.Platform.Name)
                )
                {
                    Subject = rival.Name,
                };
            else if (choices.Attributes.FirstOrDefault(a => a.Name == rival.Name) is not { } rule || rule.OpenIn(path))
                yield return new(
                    "attribute-empty",
                    Level.Should,
                    choices.Key,
                    0,
                    0,
                    0,
                    FindingTexts.AttributeEmpty(rival.Name, rival.Share)
                )
                {
                    Subject = rival.Name,
                };
    }

    private static IEnumerable<AttributeRule> AttributesOf(ListingToCheck draft) => draft.Platform.Fields.SelectMany(f => f.Attributes);
}
