using TinRabbit.Core.Matching;
using TinRabbit.Core.Platforms;

namespace TinRabbit.Core.Filling.Words;

/// <summary>Where loose words go in a field: after its text, or into an item of a list.</summary>
internal sealed class InsertionPoint
{
    private readonly FieldShape _shape;
    private readonly string[] _items;
    private readonly int _item;
    private readonly string _leadIn;

    private InsertionPoint(FieldShape shape, string[] items, int item, string between, string leadIn) =>
        (_shape, _items, _item, Separator, _leadIn) = (shape, items, item, between, leadIn);

    /// <summary>What the text is now.</summary>
    public string Text => _items[_item];

    /// <summary>What stands between two words.</summary>
    public string Separator { get; }

    public static InsertionPoint Find(Field field, FieldValue? value)
    {
        string[] items = [.. value?.Units(field.Shape) ?? []];
        if (field.Shape != FieldShape.Lines)
        {
            var text = string.Join(' ', items);
            if (field.Shape == FieldShape.Words)
                text = string.Join(' ', text.Split((char[]?)null, StringSplitOptions.RemoveEmptyEntries));
            var between = field.Shape == FieldShape.Words ? " " : field.Shape == FieldShape.Line ? field.Separator : ", ";
            return new(field.Shape, [text], 0, between, field.Shape == FieldShape.Text ? "\n" : between);
        }

        var empty = Array.FindIndex(items, string.IsNullOrWhiteSpace);
        if (empty < 0 && (field.Limit?.MaxItems is not { } most || items.Length < most))
            (items, empty) = ([.. items, ""], items.Length);
        if (empty >= 0)
        {
            items[empty] = "";
            return new(field.Shape, items, empty, ", ", "");
        }

        // All are taken: the shortest has the most room.
        var unit = field.Limit?.Unit ?? Unit.Characters;
        var shortest = Enumerable.Range(0, items.Length).MinBy(i => Platforms.RoomUsed.Measure(items[i], unit));
        return new(field.Shape, items, shortest, ", ", char.IsLetterOrDigit(items[shortest].LastOrDefault()) ? ", " : " ");
    }

    /// <summary>The room for words. Where the search reads only the first characters, what lies behind them is no room.</summary>
    public long RoomLeft(Field field, Unit unit)
    {
        var begun = Text.Length == 0 ? "" : Text + _leadIn;
        var room = field.Limit?.Max is { } max ? max - Platforms.RoomUsed.Measure(begun, unit) : int.MaxValue / 4;
        if (unit == Unit.Characters && field.IndexedFirst is { } first)
            room = Math.Min(room, first - Platforms.RoomUsed.Characters(begun));
        return Math.Max(0, room);
    }

    /// <summary>What a word may stand in and be found with these: the whole listing where words combine, otherwise this text alone.</summary>
    public ListingIndex Scope(Platform platform, IReadOnlyDictionary<string, FieldValue> copy)
    {
        if (platform.Search.WordsCombine)
            return ListingIndex.Build(platform, copy);
        var alone = platform with { Fields = [new("text", "", "", FieldShape.Line, true, null, 1, false, false, null, null, " ")] };
        return ListingIndex.Build(alone, new Dictionary<string, FieldValue> { ["text"] = new FieldValue.Text(Text) });
    }

    public string TextWith(IReadOnlyList<string> words) =>
        words.Count == 0 ? Text : (Text.Length == 0 ? "" : Text + _leadIn) + string.Join(Separator, words);

    public FieldValue ValueWith(IReadOnlyList<string> words)
    {
        if (_shape != FieldShape.Lines)
            return new FieldValue.Text(TextWith(words));
        string[] items = [.. _items];
        items[_item] = TextWith(words);
        return new FieldValue.Items(items[^1].Length == 0 ? items[..^1] : items);
    }
}
