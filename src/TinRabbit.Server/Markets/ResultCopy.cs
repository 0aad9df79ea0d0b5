namespace TinRabbit.Server.Markets;

/// <summary>A result of a search, in the fields of a platform.</summary>
internal static class ResultCopy
{
    /// <summary>The fields of a result that the platform has.</summary>
    public static IReadOnlyDictionary<string, FieldValue> Of(Result result, Platform platform)
    {
        var copy = new Dictionary<string, FieldValue>();
        if (platform.Role("title") is { } title)
            copy[title.Key] = new FieldValue.Text(result.Title);
        if (platform.Role("tags") is { } tags && result.Tags.Count > 0)
            copy[tags.Key] = new FieldValue.Items(result.Tags);
        if (platform.Role("bullets") is { } bullets && result.Bullets is { Count: > 0 } lines)
            copy[bullets.Key] = new FieldValue.Items(lines);
        if (
            result.Description is { Length: > 0 } description
            && platform.Role("body") is { Shape: FieldShape.Text or FieldShape.Line } body
        )
            copy[body.Key] = new FieldValue.Text(description);
        foreach (var field in platform.Fields.Where(f => f.Shape == FieldShape.Choices))
        {
            var filled = field
                .Attributes.Where(a => result.Attributes.ContainsKey(a.Name))
                .ToDictionary(a => a.Name, a => (IReadOnlyList<string>)[result.Attributes[a.Name]]);
            if (filled.Count > 0)
                copy[field.Key] = new FieldValue.Choices(filled);
        }

        return copy;
    }
}
