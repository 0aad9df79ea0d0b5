using TinRabbit.Core.Platforms;
using TinRabbit.Core.Words;

namespace TinRabbit.Core.Tests;

internal static class Samples
{
    public static Platform Platform(Folds folds, bool combine = true, string[]? ignored = null) =>
        new(
            "sample",
            "Sample",
            "",
            "en",
            null,
            new(folds, ignored ?? [], combine, 6),
            [
                new("title", "Title", "title", FieldShape.Line, true, null, 0.8, true, true, new(120, Unit.Characters, null), 64, ", "),
                new("tags", "Tags", "tags", FieldShape.Phrases, true, null, 0.6, false, false, new(24, Unit.Characters, 12), null, ", "),
                new("description", "Description", "body", FieldShape.Text, true, null, 0.2, false, false, null, null, "\n"),
                new("notes", "Notes", "", FieldShape.Text, false, null, 0, false, false, null, null, "\n"),
            ],
            [],
            new Dictionary<string, double>()
        );

    public static IReadOnlyDictionary<string, FieldValue> Copy(params (string Field, object Value)[] fields) =>
        fields.ToDictionary(
            f => f.Field,
            f => f.Value is string text ? (FieldValue)new FieldValue.Text(text) : new FieldValue.Items((string[])f.Value)
        );
}
