using TinRabbit.Core.Findings;
using TinRabbit.Core.Measures;
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
        return Made(MoveKind.Front, Written(_phrases.With(order)), text, pick);
    }

    /// <summary>The title with a pick that it lacks: at its front, added, or in the place of a phrase.</summary>
    public IEnumerable<Candidate> Added(int pick)
    {
        var text = _input.Terms[pick].Text.Trim();
        if (Tokens.HasPhrase(_title, text))
            yield break;
        if (Front(text) is { } front && Made(MoveKind.Front, front, text, pick) is { } first)
            yield return first;
        foreach (var longer in Extended(text))
            if (Made(MoveKind.Add, longer, text, pick) is { } added)
                yield return added;
        var words = _rules.WordsOf(text);
        if (_rules.MayStandBeside(words, _words) && Made(MoveKind.Add, Appended(text), text, pick) is { } appended)
            yield return appended;
        for (var i = 0; i < _phrases.Texts.Count; i++)
            if (
                _rules.MayStandBeside(words, _words.Where((_, k) => k != i))
                && Made(MoveKind.Exchange, Written(_phrases.Replace(i, i == 0 ? text : Inner(text))), text, pick) is { } replaced
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
                    && Made(MoveKind.Free, text, occurrences[1].Word, -1) is { } cut
                )
                    yield return cut;
        }
    }

    // The pick goes to the front. What no longer fits goes from the end.
    private string? Front(string text)
    {
        var order = Enumerable.Range(0, _phrases.Texts.Count).ToList();

        // Phrases that say nothing more than the new one go.
        var own = _rules.WordsOf(text);
        order.RemoveAll(i => _words[i].IsSubsetOf(own));
        if (!_rules.MayStandBeside(own, order.Select(i => _words[i])))
            return null;
        order.Insert(0, -1);
        while (order.Count > 1 && !Fits(_phrases.With(order, text)))
            order.RemoveAt(order.Count - 1);
        return Written(_phrases.With(order, text));
    }

    private string Appended(string text) =>
        _phrases.Texts.Count == 0 ? Written(text) : Written(_phrases.With([.. Enumerable.Range(0, _phrases.Texts.Count), -1], Inner(text)));

    // A phrase whose end is how the pick begins, or whose beginning is how the pick ends, is made longer by words that no phrase has.
    private IEnumerable<string> Extended(string text)
    {
        var tokens = Tokens.Of(text);
        for (var i = 0; i < _phrases.Texts.Count; i++)
        for (var shared = Math.Min(tokens.Count - 1, _tokens[i].Count); shared > 0; shared--)
        {
            if (Same(_tokens[i], _tokens[i].Count - shared, tokens, 0, shared) && AreNew(tokens.Skip(shared)))
                yield return Written(_phrases.Replace(i, $"{_phrases.Texts[i]} {text[tokens[shared].Start..]}"));
            if (Same(_tokens[i], 0, tokens, tokens.Count - shared, shared) && AreNew(tokens.SkipLast(shared)))
                yield return Written(
                    _phrases.Replace(i, $"{text[..tokens[^shared].Start].TrimEnd()} {TitlePhrases.Lowered(_phrases.Texts[i])}")
                );
        }

        bool AreNew(IEnumerable<Token> added) =>
            _rules.RepeatsPay || added.All(t => StopWords.Has(t.Word) || !_words.Any(w => w.Contains(_rules.KeyOf(t.Word))));
    }

    private static bool Same(List<Token> one, int from, List<Token> other, int start, int count)
    {
        for (var i = 0; i < count; i++)
            if (one[from + i].Word != other[start + i].Word)
                return false;
        return true;
    }

    private Candidate? Made(MoveKind kind, string title, string text, int pick) =>
        title.Length > 0 && title != _title && new FieldValue.Text(title) is var value && _rules.Allows(_field, value)
            ? new(kind, _field, null, text, value, pick)
            : null;

    private bool Fits(string title) => RoomUsed.Of(_field, new FieldValue.Text(title)).Fits;

    private string Written(string title) => _beginsWithCapital ? Capitals.First(title) : title;

    // Inside a title whose phrases all begin with a capital, a new one does too.
    private string Inner(string text) =>
        _phrases.Texts.Count > 1 && _phrases.Texts.All(p => char.IsUpper(p.FirstOrDefault(char.IsLetter))) ? Capitals.First(text) : text;
}
