using TinRabbit.Core.Platforms;
using TinRabbit.Core.Words;

namespace TinRabbit.Core.Moves;

/// <summary>Edits of a list of phrases: a tag added, or one replaced.</summary>
internal sealed class TagMoves
{
    private readonly MovesInput _input;
    private readonly MoveRules _rules;
    private readonly Field _field;
    private readonly IReadOnlyList<string> _tags;
    private readonly HashSet<string> _keys;
    private readonly IReadOnlyList<HashSet<string>> _words;

    public TagMoves(MovesInput input, MoveRules rules, Field field)
    {
        (_input, _rules, _field) = (input, rules, field);
        _tags = input.Copy.TryGetValue(field.Key, out var value) ? value.Units(field.Shape) : [];
        _keys = [.. _tags.Select(Tokens.Key)];
        _words = [.. _tags.Select(t => Tokens.Of(t).Select(w => rules.KeyOf(w.Word)).ToHashSet())];
    }

    /// <summary>The tags that there are.</summary>
    public int Count => _tags.Count;

    /// <summary>Whether there is room for another.</summary>
    public bool HasRoom => _field.Limit?.MaxItems is not { } most || _tags.Count(t => !string.IsNullOrWhiteSpace(t)) < most;

    /// <summary>The tags without one.</summary>
    public FieldValue Without(int item) => new FieldValue.Items([.. _tags.Where((_, i) => i != item)]);

    /// <summary>The tags that have a word of a pick.</summary>
    public IEnumerable<int> Sharing(int pick)
    {
        var words = Tokens.Of(_input.Terms[pick].Text).Where(t => !StopWords.Has(t.Word)).Select(t => _rules.KeyOf(t.Word)).ToHashSet();
        return Enumerable.Range(0, _tags.Count).Where(i => _words[i].Overlaps(words));
    }

    /// <summary>The tags with a pick as one more; null where it is one already, or a rule forbids it.</summary>
    public Candidate? Added(int pick) => Of(pick, MoveKind.Add, _tags.Count, text => [.. _tags, text]);

    /// <summary>The tags with a pick in the place of one; null where the pick is a tag already, or a rule forbids it.</summary>
    public Candidate? Exchanged(int pick, int item) =>
        Of(pick, MoveKind.Exchange, item, text => [.. _tags.Select((t, i) => i == item ? text : t)]);

    private Candidate? Of(int pick, MoveKind kind, int item, Func<string, IReadOnlyList<string>> tags)
    {
        var text = Capitals.Like(_input.Terms[pick].Text.Trim(), _tags);
        if (_keys.Contains(Tokens.Key(text)))
            return null;
        var value = new FieldValue.Items(tags(text));
        return _rules.Allows(_field, value) ? new(kind, _field, item, text, value, pick, Candidate.SlotOf(_field, item)) : null;
    }
}
