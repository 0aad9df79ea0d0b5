using TinRabbit.Core.Filling.Knapsack;
using TinRabbit.Core.Matching;
using TinRabbit.Core.Measures;
using TinRabbit.Core.Platforms;
using TinRabbit.Core.Words;

namespace TinRabbit.Core.Filling.Words;

/// <summary>The words that could be added to a listing, and the ways in which they open its missing terms.</summary>
internal sealed class CoverModel
{
    private readonly Platform _platform;
    private readonly ListingIndex _scope;
    private readonly AvoidedTerms _avoided;
    private readonly Dictionary<string, int> _wordIndex = new(StringComparer.Ordinal);
    private readonly List<string> _forms = [];
    private readonly List<TermCover> _covers = [];

    /// <param name="platform">Its folds and ignored words.</param>
    /// <param name="scope">The words that a term may make use of.</param>
    /// <param name="terms">The terms wanted.</param>
    /// <param name="held">Which of them are held already.</param>
    /// <param name="avoided">What must not be said.</param>
    public CoverModel(Platform platform, ListingIndex scope, IReadOnlyList<WantedTerm> terms, bool[] held, AvoidedTerms avoided)
    {
        (_platform, _scope, _avoided, Terms) = (platform, scope, avoided, terms);
        var ready = TermSet.Prepare(platform, [.. terms.Select(t => t.Text)]);
        Tokens = [.. ready.Terms.Select(t => t.Tokens)];
        string[] keys = [.. ready.Folded];
        ChooseShortestForms(ready);
        for (var t = 0; t < terms.Count; t++)
            if (!held[t])
                foreach (var variant in ready.Terms[t].Variants)
                    AddCover(t, ready.Terms[t], variant, keys);
        if (!platform.Search.Folds.HasFlag(Folds.Diacritics))
            AddUnfoldedCovers(held);
        if (platform.Search.Folds.HasFlag(Folds.Compound))
            AddSplitCovers();
    }

    public IReadOnlyList<WantedTerm> Terms { get; }

    /// <summary>Each term's words as typed.</summary>
    public IReadOnlyList<IReadOnlyList<Token>> Tokens { get; }

    /// <summary>Each word that could be added, in its shortest form.</summary>
    public IReadOnlyList<string> Forms => _forms;

    public IReadOnlyList<TermCover> Covers => _covers;

    /// <summary>The ways of the terms that count, as the knapsack takes them.</summary>
    /// <param name="without">Ways that turned out not to be open.</param>
    public IEnumerable<Bundle> BundlesWithout(IReadOnlySet<TermCover> without) =>
        _covers
            .Where(w => !without.Contains(w) && Terms[w.Term].Demand() > 0)
            .Select(w => new Bundle(w.Term, Terms[w.Term].Demand(), w.Items));

    /// <summary>The number of the word that stands for a word of a term; −1 when it is none of these.</summary>
    public int IndexOfWord(string word) => _wordIndex.GetValueOrDefault(Fold.Key(word, _platform.Search.Folds), -1);

    // Chooses the shortest of the forms that the platform takes as the same word, because it costs least.
    private void ChooseShortestForms(TermSet ready)
    {
        var shortest = new Dictionary<string, string>(StringComparer.Ordinal);
        foreach (var term in ready.Terms)
            for (var i = 0; i < term.Tokens.Count; i++)
            {
                Offer(term.Tokens[i].Word);
                if (_platform.Search.Folds.HasFlag(Folds.Compound) && i > 0 && Fold.Join(term.Tokens[i - 1], term.Tokens[i]) is { } joined)
                    Offer(joined);
            }

        foreach (var (key, form) in shortest)
            if (_scope.FindFolded(key) < 0 && _avoided.UsesIn(form) == 0)
                AddWord(key, form);

        void Offer(string form)
        {
            var key = Fold.Key(form, _platform.Search.Folds);
            if (!shortest.TryGetValue(key, out var known) || Size(form) < Size(known))
                shortest[key] = form;
        }

        static int Size(string form) => System.Text.Encoding.UTF8.GetByteCount(form);
    }

    private void AddWord(string key, string form)
    {
        _wordIndex[key] = _forms.Count;
        _forms.Add(form);
    }

    private void AddCover(int t, TermSet.PreparedTerm term, TermSet.TermVariant variant, string[] keys)
    {
        if (variant.OnlyIgnored)
        {
            // Adds a term of ignored words as one item, because only the whole phrase opens it.
            if (term.Tokens.Any(w => _scope.FindFolded(Fold.Key(w.Word, _platform.Search.Folds)) >= 0))
                return;
            var phrase = string.Join(' ', term.Tokens.Select(w => w.Word));
            if (term.Tokens.Count > 1 && !_wordIndex.ContainsKey(phrase))
                AddWord(phrase, phrase);
            if (_wordIndex.TryGetValue(term.Tokens.Count > 1 ? phrase : Fold.Key(phrase, _platform.Search.Folds), out var one))
                _covers.Add(new(t, [one], null, false));
            return;
        }

        var (items, whole, possible) = (new List<int>(), new List<int>(), true);
        for (var i = 0; i < variant.Folded.Length; i++)
        {
            var number = _wordIndex.GetValueOrDefault(keys[variant.Folded[i]], -1);
            whole.Add(number);
            if (variant.Ignored[i] || _scope.FindFolded(keys[variant.Folded[i]]) >= 0)
                continue;
            possible &= number >= 0;
            if (!items.Contains(number))
                items.Add(number);
        }

        if (possible && items.Count > 0)
            _covers.Add(new(t, [.. items], whole.Contains(-1) || whole.Distinct().Count() < whole.Count ? null : [.. whole], false));
    }

    // Adds covers that ignore accents, for platforms on which accents make another word: an exact phrase ignores them.
    private void AddUnfoldedCovers(bool[] held)
    {
        var byLetters = _forms.Select((s, i) => (Letters: Fold.Letters(s), Number: i)).ToLookup(s => s.Letters, s => s.Number);
        for (var t = 0; t < Terms.Count; t++)
        {
            if (held[t])
                continue;
            var forms = Tokens[t].Select(w => byLetters[Fold.Letters(w.Word)].ToArray()).ToArray();
            if (forms.All(f => f.Length <= 1) || forms.Any(f => f.Length == 0))
                continue;
            IEnumerable<int[]> phrases =
            [
                [],
            ];
            foreach (var form in forms)
                phrases = phrases.SelectMany(p => form.Select(f => (int[])[.. p, f])).Take(8).ToList();
            foreach (var phrase in phrases)
                if (phrase.Distinct().Count() == phrase.Length && !_covers.Exists(w => w.Term == t && w.Items.SequenceEqual(phrase)))
                    _covers.Add(new(t, phrase, phrase, phrase.Length > 1));
        }
    }

    // Adds covers with a compound split in two, because adjacent words are read as the compound.
    private void AddSplitCovers()
    {
        foreach (var way in _covers.ToList())
            for (var i = 0; i < way.Items.Length; i++)
            {
                var word = _forms[way.Items[i]];
                for (var at = 2; at <= word.Length - 2; at++)
                    if (
                        IndexOfWord(word[..at]) is >= 0 and var first
                        && IndexOfWord(word[at..]) is >= 0 and var second
                        && first != second
                        && _forms[first] + _forms[second] == word
                        && Fold.Join(new(_forms[first], 0, 0, false), new(_forms[second], 0, 0, false)) is not null
                    )
                        _covers.Add(new(way.Term, [.. way.Items.Where((_, k) => k != i).Union([first, second])], [first, second], true));
            }
    }
}
