using TinRabbit.Core.Words;

namespace TinRabbit.Core.Matching;

/// <summary>Finds, for missing words, the forms that stand in the listing and that the platform does not fold.</summary>
internal sealed class NearMisses
{
    private readonly ListingIndex _listing;
    private readonly Folds _folds;
    private readonly List<Folds> _missingFolds;
    private readonly Dictionary<Folds, Dictionary<string, List<string>>> _forms = [];
    private readonly Dictionary<string, IReadOnlyList<NearMiss>> _known = new(StringComparer.Ordinal);
    private readonly Dictionary<Folds, Dictionary<string, List<string>>> _pairs = [];
    private (string Word, string Form)[]? _words;
    private (string Word, string Form)[]? _neighbours;

    /// <summary>Prepares to look through a listing; nothing is computed before the first word is asked for.</summary>
    public NearMisses(ListingIndex listing)
    {
        _listing = listing;
        _folds = listing.Platform.Search.Folds;
        _missingFolds = [.. Fold.All.Where(f => f != Folds.Compound && !_folds.HasFlag(f))];
    }

    /// <summary>The near misses of a term's missing words, in the term's order.</summary>
    internal IReadOnlyList<NearMiss> Of(TermSet.PreparedTerm term, IReadOnlyList<string> missing)
    {
        if (missing.Count == 0)
            return [];
        List<NearMiss>? near = null;
        foreach (var word in missing)
            if (OfWord(word) is { Count: > 0 } found)
                (near ??= []).AddRange(found);
        if (!_folds.HasFlag(Folds.Compound))
            for (var i = 0; i < term.Joins.Length; i++)
                if (
                    term.Joins[i] is { } joined
                    && (missing.Contains(term.Tokens[i].Word) || missing.Contains(term.Tokens[i + 1].Word))
                    && Forms(Folds.None).TryGetValue(Fold.Key(joined, _folds), out var forms)
                )
                    (near ??= []).AddRange(
                        forms.Select(has => new NearMiss(
                            $"{term.Tokens[i].Word} {term.Tokens[i + 1].Word}",
                            has,
                            Fold.Name(Folds.Compound)
                        ))
                    );
        return near?.Distinct().ToList() ?? (IReadOnlyList<NearMiss>)[];
    }

    private IReadOnlyList<NearMiss> OfWord(string word)
    {
        if (_known.TryGetValue(word, out var known))
            return known;
        var near = new List<NearMiss>();
        foreach (var fold in _missingFolds)
            AddForms(fold);
        // Tries pairs of folds only where no single fold would do.
        for (var i = 0; near.Count == 0 && i < _missingFolds.Count; i++)
        for (var k = i + 1; near.Count == 0 && k < _missingFolds.Count; k++)
            AddForms(_missingFolds[i] | _missingFolds[k]);
        if (!_folds.HasFlag(Folds.Compound))
        {
            AddPairs(Folds.None);
            foreach (var fold in near.Count == 0 ? _missingFolds : [])
                AddPairs(fold);
        }

        return _known[word] = near;

        void AddPairs(Folds more)
        {
            if (Pairs(more).TryGetValue(Fold.Key(word, _folds | more), out var pairs))
                near.AddRange(pairs.Select(has => new NearMiss(word, has, Fold.Name(Folds.Compound | more))));
        }

        void AddForms(Folds folds)
        {
            if (Forms(folds).TryGetValue(Fold.Key(word, _folds | folds), out var forms))
                near.AddRange(forms.Where(has => has != word).Select(has => new NearMiss(word, has, Fold.Name(folds))));
        }
    }

    // The listing's words by their key under the platform's folds and these.
    private Dictionary<string, List<string>> Forms(Folds more) =>
        Keyed(
            _forms,
            more,
            _words ??= [
                .. WordPlaces(0).Select(at => _listing.TokenAt(at).Word).Distinct(StringComparer.Ordinal).Select(word => (word, word)),
            ]
        );

    // The listing's neighbours that could be one word, by that word's key under the platform's folds and these.
    private Dictionary<string, List<string>> Pairs(Folds more) =>
        Keyed(
            _pairs,
            more,
            _neighbours ??= [
                .. WordPlaces(1)
                    .Where(at => _listing.IsWord(at - 1))
                    .Select(at =>
                        (
                            Joined: Fold.Join(_listing.TokenAt(at - 1), _listing.TokenAt(at)),
                            Form: $"{_listing.TokenAt(at - 1).Word} {_listing.TokenAt(at).Word}"
                        )
                    )
                    .Where(pair => pair.Joined is not null)
                    .Distinct()!,
            ]
        );

    private IEnumerable<int> WordPlaces(int from) => Enumerable.Range(from, Math.Max(0, _listing.Places - from)).Where(_listing.IsWord);

    private Dictionary<string, List<string>> Keyed(
        Dictionary<Folds, Dictionary<string, List<string>>> kept,
        Folds more,
        (string Word, string Form)[] words
    )
    {
        if (kept.TryGetValue(more, out var forms))
            return forms;
        forms = new(StringComparer.Ordinal);
        foreach (var (word, form) in words)
            AddForm(forms, Fold.Key(word, _folds | more), form);
        return kept[more] = forms;
    }

    private static void AddForm(Dictionary<string, List<string>> forms, string key, string form)
    {
        if (!forms.TryGetValue(key, out var list))
            forms[key] = list = [];
        if (!list.Contains(form))
            list.Add(form);
    }
}
