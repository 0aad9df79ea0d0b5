namespace TinRabbit.Core.Platforms;

/// <summary>What stands in one field of a listing.</summary>
public abstract record FieldValue
{
    /// <summary>One text.</summary>
    public sealed record Text(string Value) : FieldValue;

    /// <summary>A list: tags, bullet points, a category path.</summary>
    public sealed record Items(IReadOnlyList<string> Values) : FieldValue;

    /// <summary>Attributes by name, each with its values.</summary>
    public sealed record Choices(IReadOnlyDictionary<string, IReadOnlyList<string>> Values) : FieldValue;

    /// <summary>
    /// The units that a search reads one by one: a text whole, each item of a list, each value of an attribute. A field of
    /// words is one unit however it was given. HTML keeps its length, with markup blanked, so that offsets stay right.
    /// </summary>
    public IReadOnlyList<string> Units(FieldShape shape)
    {
        IReadOnlyList<string> units = this switch
        {
            Text t => [t.Value],
            Items i when shape == FieldShape.Words => [string.Join(' ', i.Values)],
            Items i => i.Values,
            Choices c => [.. c.Values.Values.SelectMany(v => v)],
            _ => [],
        };
        return shape == FieldShape.Rich ? [.. units.Select(HtmlText.Blank)] : units;
    }

    /// <summary>The value as one text, to be compared with another: a list has one item on each line.</summary>
    public string Lines(FieldShape shape) => this is Text text ? text.Value : string.Join('\n', Units(shape));

    /// <summary>Whether nothing but white space stands in the field.</summary>
    public bool IsEmpty(FieldShape shape) => Units(shape).All(string.IsNullOrWhiteSpace);
}
