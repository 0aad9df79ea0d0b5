using TinRabbit.Core.Words;

namespace TinRabbit.Core.Matching;

/// <summary>Finds, for missing words, the forms that stand in the listing and that the platform does not fold.</summary>
public sealed class NearMisses
{
    private readonly ListingIndex _listing;
    private readonly Folds _has;
    private readonly List<Folds> _lacks;
    private readonly Dictionary<Folds, Dictionary<string, List<string>>> _forms = [];
    private readonly Dictionary<string, IReadOnlyList<NearMiss>> _known = new(StringComparer.Ordinal);
    private readonly Dictionary<Folds, Dictionary<string, List<string>>> _pairs = [];

    /// <summary>Prepares to look through a listing; nothing is computed before the first word is asked for.</summary>
    public NearMisses(ListingIndex listing)
    {
        _listing = listing;
        _has = listing.Platform.Search.Folds;
        _lacks = [.. Fold.All.Where(f => f != Folds.Compound && !_has.HasFlag(f))];
    }

    /// <summary>The near misses of a term's missing words, in the term's order.</summary>
    public IReadOnlyList<NearMiss> Of(IReadOnlyList<Token> term, IReadOnlyList<string> missing)
    {
        if (missing.Count == 0)
            return [];
        List<NearMiss>? near = null;
        foreach (var word in missing)
            if (OfWord(word) is { Count: > 0 } found)
                (near ??= []).AddRange(found);
        if (!_has.HasFlag(Folds.Compound))
            for (var i = 1; i < term.Count; i++)
                if ((missing.Contains(term[i - 1].Word) || missing.Contains(term[i].Word))
                    && Fold.Join(term[i - 1], term[i]) is { } joined
                    && Forms(Folds.None).TryGetValue(Fold.Key(joined, _has), out var forms))
                    (near ??= []).AddRange(forms.Select(has => new NearMiss($"{term[i - 1].Word} {term[i].Word}", has, Fold.Name(Folds.Compound))));
        return near?.Distinct().ToList() ?? (IReadOnlyList<NearMiss>)[];
    }

    private IReadOnlyList<NearMiss> OfWord(string word)
    {
        if (_known.TryGetValue(word, out var known))
            return known;
        var near = new List<NearMiss>();
        foreach (var fold in _lacks)
            AddForms(fold);
        // Only where no fold alone would do: two that would together.
        for (var i = 0; near.Count == 0 && i < _lacks.Count; i++)
            for (var k = i + 1; near.Count == 0 && k < _lacks.Count; k++)
                AddForms(_lacks[i] | _lacks[k]);
        if (!_has.HasFlag(Folds.Compound))
        {
            AddPairs(Folds.None);
            foreach (var fold in near.Count == 0 ? _lacks : [])
                AddPairs(fold);
        }

        return _known[word] = near;

        void AddPairs(Folds more)
        {
            if (Pairs(more).TryGetValue(Fold.Key(word, _has | more), out var pairs))
                near.AddRange(pairs.Select(has => new NearMiss(word, has, Fold.Name(Folds.Compound | more))));
        }

        void AddForms(Folds folds)
        {
            if (Forms(folds).TryGetValue(Fold.Key(word, _has | folds), out var forms))
                near.AddRange(forms.Where(has => has != word).Select(has => new NearMiss(word, has, Fold.Name(folds))));
        }
    }

    // The listing's words by their key under the platform's folds and these.
    private Dictionary<string, List<string>> Forms(Folds more)
    {
        if (_forms.TryGetValue(more, out var forms))
            return forms;
        forms = new(StringComparer.Ordinal);
        for (var place = 0; place < _listing.Places; place++)
            if (_listing.IsWord(place))
                Put(forms, Fold.Key(_listing.TokenAt(place).Word, _has | more), _listing.TokenAt(place).Word);
        return _forms[more] = forms;
    }

    // The listing's neighbours that could be one word, by that word's key under the platform's folds and these.
    private Dictionary<string, List<string>> Pairs(Folds more)
    {
        if (_pairs.TryGetValue(more, out var pairs))
            return pairs;
        pairs = new(StringComparer.Ordinal);
        for (var place = 1; place < _listing.Places; place++)
            if (_listing.IsWord(place - 1) && _listing.IsWord(place) && Fold.Join(_listing.TokenAt(place - 1), _listing.TokenAt(place)) is { } joined)
                Put(pairs, Fold.Key(joined, _has | more), $"{_listing.TokenAt(place - 1).Word} {_listing.TokenAt(place).Word}");
        return _pairs[more] = pairs;
    }

    private static void Put(Dictionary<string, List<string>> forms, string key, string form)
    {
        if (!forms.TryGetValue(key, out var list))
            forms[key] = list = [];
        if (!list.Contains(form))
            list.Add(form);
    }
}
