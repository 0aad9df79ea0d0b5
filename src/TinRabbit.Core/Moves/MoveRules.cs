using TinRabbit.Core.Edits;
using TinRabbit.Core.Filling;
using TinRabbit.Core.Findings;
using TinRabbit.Core.Matching;
using TinRabbit.Core.Measures;
using TinRabbit.Core.Platforms;
using TinRabbit.Core.Words;

namespace TinRabbit.Core.Moves;

/// <summary>What every move in a field keeps to: limits, the avoid list, the platform's banned phrases, the facts, each pick's home, the lead, and how often a word may come.</summary>
internal sealed class MoveRules
{
    private readonly MovesInput _input;
    private readonly Placement _placement;
    private readonly int _wordUses;
    private readonly AvoidedTerms _forbidden;
    private readonly AvoidedTerms _crossing;
    private readonly Dictionary<string, string> _keys = new(StringComparer.Ordinal);
    private readonly Dictionary<string, HashSet<string>> _words = new(StringComparer.Ordinal);
    private readonly Dictionary<string, int> _forbiddenBefore = new(StringComparer.Ordinal);

    /// <param name="input">The listing and its picks.</param>
    /// <param name="placements">Which picks may stand in its fields.</param>
    /// <param name="forbidden">What no move may bring in.</param>
    /// <param name="field">The field.</param>
    public MoveRules(MovesInput input, Placements placements, AvoidedTerms forbidden, Field field)
    {
        (_input, _forbidden, _placement) = (input, forbidden, placements.In(field));
        Usable =
        [
            .. Enumerable
                .Range(0, input.Terms.Count)
                .Where(i =>
                    input.Terms[i].Worth() > 0
                    && (input.Only is null || input.Only.Contains(input.Terms[i].Text))
                    && _placement.Allows(input.Terms[i])
                ),
        ];
        _crossing = Crossing(ForbiddenBy(input));
        _wordUses = Math.Max(1, (int)ListingToCheck.ThresholdOf(input.Platform, ListingToCheck.TitleWordUses));
    }

    /// <summary>What no move may bring in: the avoid list, picks to avoid, and the platform's banned phrases.</summary>
    public static IReadOnlyList<string> ForbiddenBy(MovesInput input) =>
        [
            .. input.Avoid,
            .. input.Terms.Where(t => t.Home == Home.Avoid).Select(t => t.Text),
            .. input.Platform.Banned.Where(b => Tokens.Of(b).Count > 0),
        ];

    /// <summary>The numbers of the picks that moves may use in the field: worth something, true by the facts, at home there, without anything avoided.</summary>
    public IReadOnlyList<int> Usable { get; }

    /// <summary>The picks that moves may not use in the field.</summary>
    public IReadOnlyList<LeftOut> LeftOut => _placement.LeftOut;

    /// <summary>Whether a text that is in no pick may be said: it is true by the facts, and has nothing that is avoided.</summary>
    public bool MaySay(string text) => IsTrue(text) && _forbidden.UsesIn(text) == 0;

    private bool IsTrue(string text) => _input.Facts is not { } facts || Facets.Unbacked(text, facts).Count == 0;

    /// <summary>Whether the listing may have this value: it fits, and nothing that is avoided comes in with it.</summary>
    public bool Allows(Field field, FieldValue value) =>
        RoomUsed.Of(field, value).Fits && KeepsLead(field, value) && (!_crossing.Any || Uses(field, value) <= UsesBefore(field));

    /// <summary>A word as the platform's search and any reader take it: two forms of it are the same.</summary>
    public string KeyOf(string word)
    {
        if (!_keys.TryGetValue(word, out var key))
            _keys[word] = key = Fold.Key(word, _input.Platform.Search.Folds);
        return key;
    }

    /// <summary>The words of a text by their keys, small words left out.</summary>
    public HashSet<string> WordsOf(string text)
    {
        if (!_words.TryGetValue(text, out var words))
            _words[text] = words = [.. Tokens.Of(text).Where(t => !StopWords.Has(t.Word)).Select(t => KeyOf(t.Word))];
        return words;
    }

    /// <summary>Whether a title says no word more often than the profile allows, or than the title before it, and no phrase twice.</summary>
    /// <param name="before">The title as it was.</param>
    /// <param name="title">The title to be.</param>
    /// <param name="separator">What stands between phrases.</param>
    public bool KeepsWordUses(string before, string title, string separator)
    {
        var old = Uses(before);
        foreach (var (word, uses) in Uses(title))
            if (uses > Math.Max(_wordUses, old.GetValueOrDefault(word)))
                return false;
        return RepeatedPhrases(title) <= RepeatedPhrases(before);

        Dictionary<string, int> Uses(string text) =>
            Tokens.Of(text).Where(t => !StopWords.Has(t.Word)).GroupBy(t => KeyOf(t.Word)).ToDictionary(g => g.Key, g => g.Count());

        int RepeatedPhrases(string text)
        {
            var phrases = TitlePhrases
                .Of(text, separator)
                .Texts.Select(p => string.Join(' ', Tokens.Of(p).Select(t => KeyOf(t.Word))))
                .ToList();
            return phrases.Count - phrases.Distinct(StringComparer.Ordinal).Count();
        }
    }

    // No usable pick has anything that is avoided by itself: it can only come about where a pick stands beside other words, of which all must
    // be somewhere. Where the platform joins words, a closer look is needed.
    private AvoidedTerms Crossing(IReadOnlyList<string> texts)
    {
        if (_input.Platform.Search.Folds.HasFlag(Folds.Compound))
            return _forbidden;
        var words = _input
            .Platform.Fields.SelectMany(f => _input.Copy.TryGetValue(f.Key, out var value) ? value.Units(f.Shape) : [])
            .Concat(Usable.Select(p => _input.Terms[p].Text))
            .SelectMany(Tokens.Of)
            .Select(t => _forbidden.KeyOf(t.Word))
            .ToHashSet(StringComparer.Ordinal);
        return new(
            _input.Platform,
            [.. texts.Zip(_forbidden.Phrases).Where(t => t.Second.Length > 1 && t.Second.All(words.Contains)).Select(t => t.First)]
        );
    }

    private int UsesBefore(Field field)
    {
        if (!_forbiddenBefore.TryGetValue(field.Key, out var uses))
            _forbiddenBefore[field.Key] = uses = _input.Copy.TryGetValue(field.Key, out var value) ? Uses(field, value) : 0;
        return uses;
    }

    private int Uses(Field field, FieldValue value) =>
        _crossing.FindIn(new Dictionary<string, FieldValue> { [field.Key] = value }).Sum(f => f.Spans.Count);

    // Where the title has the lead, it still has it, and where it stood in the part that shows elsewhere, it still does.
    private bool KeepsLead(Field field, FieldValue value)
    {
        if (field.Role != "title" || _input.Lead is not { } lead || !_input.Copy.TryGetValue(field.Key, out var before))
            return true;
        var (old, now) = (TextOf(field, before), TextOf(field, value));
        return (!Tokens.HasPhrase(old, lead) || Tokens.HasPhrase(now, lead))
            && (field.Shows is not { } shows || !Tokens.HasPhrase(First(old, shows), lead) || Tokens.HasPhrase(First(now, shows), lead));
    }

    private static string TextOf(Field field, FieldValue value) => string.Join(' ', value.Units(field.Shape));

    private static string First(string text, int characters) => text[..TextLength.OffsetOf(text, characters)];
}
