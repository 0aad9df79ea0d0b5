using TinRabbit.Core.Edits;
using TinRabbit.Core.Findings;
using TinRabbit.Core.Platforms;
using TinRabbit.Core.Words;

namespace TinRabbit.Core.Moves;

/// <summary>Edits of the title: a pick to the front, a phrase added or replaced, a repeated word cut.</summary>
internal sealed class TitleMoves
{
    private readonly MovesInput _input;
    private readonly MoveRules _rules;
    private readonly Field _field;
    private readonly string _title;
    private readonly TitlePhrases _phrases;
    private readonly IReadOnlyList<List<Token>> _tokens;
    private readonly IReadOnlyList<HashSet<string>> _words;
    private readonly bool _beginsWithCapital;

    public TitleMoves(MovesInput input, MoveRules rules, Field field)
    {
        (_input, _rules, _field) = (input, rules, field);
        _title = input.Copy.TryGetValue(field.Key, out var value) ? string.Join(' ', value.Units(field.Shape)) : "";
        _phrases = TitlePhrases.Of(_title, field.Separator);
        _tokens = [.. _phrases.Texts.Select(Tokens.Of)];
        _words = [.. _phrases.Texts.Select(rules.WordsOf)];
        _beginsWithCapital = _title.Length == 0 || char.IsUpper(_title.FirstOrDefault(char.IsLetter, 'A'));
    }

    /// <summary>The title with the phrase that has a pick at its front; null where there is none, or it is there already.</summary>
    public Candidate? Moved(int pick)
    {
        var text = _input.Terms[pick].Text.Trim();
        var order = Enumerable.Range(0, _phrases.Texts.Count).ToList();
        var at = order.FindIndex(i => _rules.WordsOf(text).IsSubsetOf(_words[i]) && Tokens.HasPhrase(_phrases.Texts[i], text));
        if (at <= 0)
            return null;
        order.RemoveAt(at);
        order.Insert(0, at);
        return Made(MoveKind.Front, Written(_phrases.With(order)), text, pick, Candidate.Front(_field));
    }

    /// <summary>The title with a pick that it lacks: at its front, added, or in the place of a phrase.</summary>
    public IEnumerable<Candidate> Added(int pick)
    {
        var text = _input.Terms[pick].Text.Trim();
        if (Tokens.HasPhrase(_title, text))
            yield break;
        if (Made(MoveKind.Front, Front(text), text, pick, Candidate.Front(_field)) is { } first)
            yield return first;
        foreach (var (longer, slot) in Extended(text))
            if (Made(MoveKind.Add, longer, text, pick, slot) is { } added)
                yield return added;
        if (Made(MoveKind.Add, Appended(text), text, pick, Candidate.End(_field)) is { } appended)
            yield return appended;
        for (var i = 0; i < _phrases.Texts.Count; i++)
            if (
                Made(
                    MoveKind.Exchange,
                    Written(_phrases.Replace(i, i == 0 ? text : Inner(text))),
                    text,
                    pick,
                    Candidate.SlotOf(_field, i)
                ) is
                { } replaced
            )
                yield return replaced;
    }

    /// <summary>Repeated words, each cut where what remains still reads well.</summary>
    public IEnumerable<Candidate> Repeats()
    {
        var tokens = Tokens.Of(_title);
        foreach (
            var word in tokens.Where(t => !StopWords.Has(t.Word)).GroupBy(t => _rules.KeyOf(t.Word)).Where(g => g.Count() is > 1 and <= 10)
        )
        {
            var occurrences = word.ToList();
            foreach (var kept in new[] { 0, occurrences.Count - 1 })
                if (
                    RepeatedWords.KeepOne(_title, tokens, occurrences, kept) is { } text
                    && Made(MoveKind.Free, text, occurrences[1].Word, -1, Candidate.SlotOfChange(_field, _title, text)) is { } cut
                )
                    yield return cut;
        }
    }

    // The pick goes to the front. What no longer fits goes from the end.
    private string Front(string text)
    {
        var order = Enumerable.Range(0, _phrases.Texts.Count).ToList();

        // Phrases that say nothing more than the new one go.
        var own = _rules.WordsOf(text);
        order.RemoveAll(i => _words[i].IsSubsetOf(own));
        order.Insert(0, -1);
        var front = Inner(text);
        while (order.Count > 1 && !Fits(_phrases.With(order, front)))
            order.RemoveAt(order.Count - 1);
        return Written(_phrases.With(order, front));
    }

    private string Appended(string text) =>
        _phrases.Texts.Count == 0 ? Written(text) : Written(_phrases.With([.. Enumerable.Range(0, _phrases.Texts.Count), -1], Inner(text)));

    // A phrase whose end is how the pick begins, or whose beginning is how the pick ends, made longer.
    private IEnumerable<(string Title, string Slot)> Extended(string text)
    {
        var tokens = Tokens.Of(text);
        for (var i = 0; i < _phrases.Texts.Count; i++)
        for (var shared = Math.Min(tokens.Count - 1, _tokens[i].Count); shared > 0; shared--)
        {
            if (Same(_tokens[i], _tokens[i].Count - shared, tokens, 0, shared))
                yield return (
                    Written(_phrases.Replace(i, $"{_phrases.Texts[i]} {Capitals.Like(text[tokens[shared].Start..], [_phrases.Texts[i]])}")),
                    i == _phrases.Texts.Count - 1 ? Candidate.End(_field) : Candidate.SlotOf(_field, i)
                );
            if (Same(_tokens[i], 0, tokens, tokens.Count - shared, shared))
                yield return (
                    Written(
                        _phrases.Replace(i, Inner($"{text[..tokens[^shared].Start].TrimEnd()} {TitlePhrases.Lowered(_phrases.Texts[i])}"))
                    ),
                    i == 0 ? Candidate.Front(_field) : Candidate.SlotOf(_field, i)
                );
        }
    }

    private static bool Same(List<Token> one, int from, List<Token> other, int start, int count)
    {
        for (var i = 0; i < count; i++)
            if (one[from + i].Word != other[start + i].Word)
                return false;
        return true;
    }

    private Candidate? Made(MoveKind kind, string title, string text, int pick, string slot) =>
        title.Length > 0
        && title != _title
        && new FieldValue.Text(title) is var value
        && _rules.Allows(_field, value)
        && _rules.KeepsWordUses(_title, title, _field.Separator)
            ? new(kind, _field, null, kind == MoveKind.Free ? text : Inner(text), value, pick, slot)
            : null;

    /// <summary>Whether a candidate says no word more often than the profile allows.</summary>
    public bool KeepsWordUses(Candidate candidate) =>
        _rules.KeepsWordUses(_title, string.Join(' ', candidate.Value.Units(_field.Shape)), _field.Separator);

    private bool Fits(string title) => RoomUsed.Of(_field, new FieldValue.Text(title)).Fits;

    private string Written(string title) => _beginsWithCapital ? Capitals.First(title) : title;

    // A phrase with capitals as those beside it have them.
    private string Inner(string text) => Capitals.Like(text, _phrases.Texts);
}
