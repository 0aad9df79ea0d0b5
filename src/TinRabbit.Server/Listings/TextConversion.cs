namespace TinRabbit.Server.Listings;

/// <summary>Takes a listing's texts over to another platform.</summary>
internal static class TextConversion
{
    /// <summary>The texts by field: the field with the same key, or else with the same role. What is too long stays, and is marked there.</summary>
    /// <param name="platform">The platform it is for.</param>
    /// <param name="from">The platform it comes from.</param>
    /// <param name="copy">The texts there.</param>
    /// <returns>The text there.</returns>
    public static ListingText ConvertTo(Platform platform, Platform from, IReadOnlyDictionary<string, FieldValue> copy)
    {
        var result = new Dictionary<string, FieldValue>();
        foreach (var field in platform.Fields)
        {
            var source =
                from.Fields.FirstOrDefault(f => f.Key == field.Key && Usable(f))
                ?? from.Fields.FirstOrDefault(f => f.Role == field.Role && f.Role.Length > 0 && Usable(f));
            if (source is not null && Converted(copy[source.Key], source, field) is { } value)
                result[field.Key] = value;
        }

        return ListingText.Of(result);

        bool Usable(Field field) => copy.TryGetValue(field.Key, out var value) && !value.IsEmpty(field.Shape);
    }

    private static FieldValue? Converted(FieldValue value, Field from, Field to)
    {
        if (from.Shape == to.Shape)
            return value;
        bool OneText(Field f) => f.Shape is FieldShape.Line or FieldShape.Text or FieldShape.Words;
        bool ManyTexts(Field f) => f.Shape is FieldShape.Lines or FieldShape.Phrases;
        var texts = value.Units(from.Shape);
        return OneText(to) && (OneText(from) || ManyTexts(from))
                ? new FieldValue.Text(string.Join(OneText(from) ? " " : to.Separator, texts))
            : ManyTexts(to) && ManyTexts(from) ? new FieldValue.Items(texts)
            : ManyTexts(to) && OneText(from) ? new FieldValue.Items(texts.Take(1).ToArray())
            : null;
    }
}
