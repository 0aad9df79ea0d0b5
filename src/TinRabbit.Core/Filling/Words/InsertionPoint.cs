using TinRabbit.Core.Matching;
using TinRabbit.Core.Platforms;

namespace TinRabbit.Core.Filling.Words;

/// <summary>Where loose words go in a field: after its text, or into an item of a list.</summary>
internal sealed class InsertionPoint
{
    private readonly FieldShape _shape;
    private readonly string[] _items;
    private readonly int _item;
    private readonly Field _field;
    private readonly string? _language;

    private InsertionPoint(Field field, string[] items, int item, string between, string? language) =>
        (_shape, _field, _items, _item, Separator, _language) = (field.Shape, field, items, item, between, language);

    /// <summary>What the text is now.</summary>
    public string Text => _items[_item];

    /// <summary>Whether what is added is a sentence that people read.</summary>
    public bool IsSentence => _language is not null;

    /// <summary>What stands between two words.</summary>
    public string Separator { get; }

    /// <param name="platform">Its language says how a sentence is made.</param>
    /// <param name="field">The field.</param>
    /// <param name="value">What it holds.</param>
    public static InsertionPoint Find(Platform platform, Field field, FieldValue? value)
    {
        string[] items = [.. value?.Units(field.Shape) ?? []];
        if (field.Shape != FieldShape.Lines)
        {
            var text = string.Join(' ', items);
            if (field.Shape == FieldShape.Words)
                text = string.Join(' ', text.Split((char[]?)null, StringSplitOptions.RemoveEmptyEntries));
            var between =
                field.Shape == FieldShape.Words ? " "
                : field.Shape == FieldShape.Line ? field.Separator
                : ", ";
            return new(field, [text], 0, between, field.Shape == FieldShape.Text ? platform.Language : null);
        }

        var empty = Array.FindIndex(items, string.IsNullOrWhiteSpace);
        if (empty < 0 && (field.Limit?.MaxItems is not { } most || items.Length < most))
            (items, empty) = ([.. items, ""], items.Length);
        if (empty >= 0)
        {
            items[empty] = "";
            return new(field, items, empty, ", ", platform.Language);
        }

        // Without an empty item, the shortest one has the most room.
        var unit = field.Limit?.Unit ?? Unit.Characters;
        var shortest = Enumerable.Range(0, items.Length).MinBy(i => TextLength.Of(items[i], unit));
        return new(field, items, shortest, ", ", platform.Language);
    }

    /// <summary>The room for words. Where the search reads only the first characters, what lies behind them is no room.</summary>
    public long RoomLeft(Field field, Unit unit)
    {
        const string Phrase = "x";
        var begun = _language is null
            ? Text.Length == 0
                ? ""
                : Text + Separator
            : TextWith([Phrase]) is var said && said != Text
                ? said[..^Phrase.Length]
                : Text;
        var room = field.Limit?.Max is { } max ? max - TextLength.Of(begun, unit) : int.MaxValue / 4;
        if (unit == Unit.Characters && field.IndexedFirst is { } first)
            room = Math.Min(room, first - TextLength.Characters(begun));
        return Math.Max(0, room);
    }

    /// <summary>What a word may stand in and be found with these: the whole listing where words combine, otherwise this text alone.</summary>
    public ListingIndex Scope(Platform platform, IReadOnlyDictionary<string, FieldValue> copy)
    {
        if (platform.Search.WordsCombine)
            return ListingIndex.Build(platform, copy);
        return ListingIndex.Build(platform.OfOneText(), Platform.CopyOf(Text));
    }

    /// <summary>The text with some words: in a text that people read, as a sentence at its end.</summary>
    public string TextWith(IReadOnlyList<string> words) =>
        words.Count == 0 ? Text
        : _language is null ? (Text.Length == 0 ? "" : Text + Separator) + string.Join(Separator, words)
        : ClosingSentence.Of(_language, _field, words) is { } sentence ? ClosingSentence.After(Text, sentence)
        : Text;

    public FieldValue ValueWith(IReadOnlyList<string> words)
    {
        if (_shape != FieldShape.Lines)
            return new FieldValue.Text(TextWith(words));
        string[] items = [.. _items];
        items[_item] = TextWith(words);
        return new FieldValue.Items(items[^1].Length == 0 ? items[..^1] : items);
    }

    /// <summary>
    /// The words of the chains in an order that makes no avoided phrase, neither among themselves nor with the text before them: chain after
    /// chain, the next that is allowed. Those left over go in between where they can, whole or else word by word.
    /// </summary>
    /// <param name="chains">Runs of words, the worthiest first.</param>
    /// <param name="avoided">What must not be said.</param>
    /// <returns>Words where spaces separate them, otherwise phrases.</returns>
    public List<string> Arrange(IReadOnlyList<string[]> chains, AvoidedTerms avoided)
    {
        var left = chains.ToList();
        var entries = new List<string>();
        var uses = avoided.UsesIn(Text);
        while (left.FindIndex(c => IsAllowed(entries.Count, c)) is >= 0 and var next)
        {
            Insert(entries.Count, left[next]);
            left.RemoveAt(next);
        }

        foreach (var chain in left)
            if (!InsertBetween(chain))
                foreach (var word in chain)
                    InsertBetween([word]);
        return entries;

        string[] EntriesOf(string[] chain) => Separator == " " ? chain : [string.Join(' ', chain)];

        bool IsAllowed(int at, string[] chain) =>
            avoided.UsesIn(TextWith([.. entries[..at], .. EntriesOf(chain), .. entries[at..]])) <= uses;

        void Insert(int at, string[] chain) => entries.InsertRange(at, EntriesOf(chain));

        bool InsertBetween(string[] chain)
        {
            for (var at = entries.Count; at >= 0; at--)
                if (IsAllowed(at, chain))
                {
                    Insert(at, chain);
                    return true;
                }

            return false;
        }
    }
}
