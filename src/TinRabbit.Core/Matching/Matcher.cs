using TinRabbit.Core.Platforms;

namespace TinRabbit.Core.Matching;

/// <summary>
/// Grades terms against a listing. Each distinct word of the terms is looked up once in the listing's index; a term then
/// reads numbers, and only terms whose every word stands are looked at more closely.
/// </summary>
public sealed class Matcher
{
    /// <summary>Factor of <see cref="Grade.Inflected"/> in a field's strength.</summary>
    public const double InflectedFactor = 0.85;

    /// <summary>Factor of <see cref="Grade.Together"/> in a field's strength.</summary>
    public const double TogetherFactor = 0.6;

    private readonly TermSet _terms;
    private readonly ListingIndex _listing;
    private readonly int[] _letters;
    private readonly int[] _folded;
    private readonly int _maskWidth;
    private readonly ulong[] _unitMasks;
    private readonly double[] _bestWeight;
    private readonly Grade[] _noFields;
    private readonly double[] _noStrengths;

    /// <summary>Looks every word of the terms up in the listing.</summary>
    public Matcher(TermSet terms, ListingIndex listing)
    {
        _terms = terms;
        _listing = listing;
        _letters = [.. terms.Letters.Select(listing.FindLetters)];
        _folded = [.. terms.Folded.Select(listing.FindFolded)];
        _maskWidth = (listing.Units.Count + 63) / 64;
        _unitMasks = new ulong[listing.FoldCount * _maskWidth];
        _bestWeight = new double[listing.FoldCount];
        for (var folded = 0; folded < listing.FoldCount; folded++)
            foreach (var place in listing.FoldPlaces(folded))
            {
                var unit = listing.UnitAt(place >> 1);
                _unitMasks[folded * _maskWidth + (unit >> 6)] |= 1UL << (unit & 63);
                _bestWeight[folded] = Math.Max(_bestWeight[folded], Field(listing.Units[unit].Field).Weight);
            }

        _noFields = new Grade[listing.Fields.Count];
        _noStrengths = new double[listing.Fields.Count];
    }

    /// <summary>Grades every term, in order.</summary>
    public Match[] All()
    {
        var matches = new Match[_terms.Terms.Length];
        for (var i = 0; i < matches.Length; i++)
            matches[i] = One(i);
        return matches;
    }

    /// <summary>Grades the term with this number.</summary>
    public Match One(int number)
    {
        var term = _terms.Terms[number];
        var found = new Found(this);
        if (AllStand(term.Letters, _letters))
            Phrases(term.Letters, found);
        foreach (var variant in term.Variants)
        {
            if (!AllStand(variant.Folded, _folded))
                continue;
            InflectedPhrases(variant, found);
        }

        var words = false;
        var standing = false;
        foreach (var variant in term.Variants)
            if (HasWords(variant))
            {
                words = true;
                if (!WordsStand(variant))
                    continue;
                standing = true;
                Together(variant, found);
            }

        if (!found.Any && !standing)
            return new(Grade.Missing, _noFields, _noStrengths, 0, words ? MissingWords(term) : [], false, []);
        var combine = _terms.Platform.Search.WordsCombine;
        var spread = 0.0;
        if (standing && combine)
            foreach (var variant in term.Variants)
                if (HasWords(variant) && WordsStand(variant))
                    spread = Math.Max(spread, MeanWeight(variant));

        var best = found.Best;
        if (best < Grade.Spread && standing && combine)
            best = Grade.Spread;
        return new(best, found.Fields ?? _noFields, found.Strengths ?? _noStrengths, best == Grade.Spread ? spread : 0, [],
            best == Grade.Missing && standing, Spans(term, found, best));
    }

    private Field Field(int number) => _listing.Fields[number];

    private static bool AllStand(int[] words, int[] lookup)
    {
        foreach (var word in words)
            if (lookup[word] < 0)
                return false;
        return true;
    }

    private static bool HasWords(TermSet.Variant variant) => Array.IndexOf(variant.Ignored, false) >= 0;

    private bool WordsStand(TermSet.Variant variant)
    {
        for (var i = 0; i < variant.Folded.Length; i++)
            if (!variant.Ignored[i] && _folded[variant.Folded[i]] < 0)
                return false;
        return true;
    }

    // Letter for letter: go through the places of the rarest word and compare its neighbours.
    private void Phrases(int[] letters, Found found)
    {
        var rarest = 0;
        for (var i = 1; i < letters.Length; i++)
            if (_listing.LetterPlaces(_letters[letters[i]]).Count < _listing.LetterPlaces(_letters[letters[rarest]]).Count)
                rarest = i;
        foreach (var place in _listing.LetterPlaces(_letters[letters[rarest]]))
        {
            var start = place - rarest;
            if (start < 0 || start + letters.Length > _listing.Places)
                continue;
            var same = true;
            for (var i = 0; same && i < letters.Length; i++)
                same = _listing.LetterAt(start + i) == _letters[letters[i]];
            if (same)
                found.Phrase(Grade.Whole, 1, start, start + letters.Length);
        }
    }

    private void InflectedPhrases(TermSet.Variant variant, Found found)
    {
        var lead = 0;
        if (!_listing.HasJoins)
            for (var i = 1; i < variant.Folded.Length; i++)
                if (_listing.FoldPlaces(_folded[variant.Folded[i]]).Count < _listing.FoldPlaces(_folded[variant.Folded[lead]]).Count)
                    lead = i;
        foreach (var place in _listing.FoldPlaces(_folded[variant.Folded[lead]]))
        {
            var start = (place >> 1) - lead;
            if (start >= 0 && EndOfPhrase(variant.Folded, 0, start) is var end and > 0)
                found.Phrase(Grade.Inflected, InflectedFactor, start, end);
        }
    }

    // The place after a phrase that starts here, a joined pair of the listing standing for one word; -1 when it does not.
    private int EndOfPhrase(int[] words, int from, int place)
    {
        if (from == words.Length)
            return place;
        if (place >= _listing.Places)
            return -1;
        var word = _folded[words[from]];
        var end = -1;
        if (_listing.FoldAt(place) == word)
            end = EndOfPhrase(words, from + 1, place + 1);
        if (end < 0 && _listing.JoinAt(place) == word)
            end = EndOfPhrase(words, from + 1, place + 2);
        return end;
    }

    private void Together(TermSet.Variant variant, Found found)
    {
        for (var w = 0; w < _maskWidth; w++)
        {
            var units = ulong.MaxValue;
            for (var i = 0; i < variant.Folded.Length; i++)
                if (!variant.Ignored[i])
                    units &= _unitMasks[_folded[variant.Folded[i]] * _maskWidth + w];
            for (; units != 0; units &= units - 1)
                found.Unit((w << 6) + System.Numerics.BitOperations.TrailingZeroCount(units));
        }
    }

    private double MeanWeight(TermSet.Variant variant)
    {
        var sum = 0.0;
        var words = 0;
        for (var i = 0; i < variant.Folded.Length; i++)
            if (!variant.Ignored[i])
            {
                // A joined word stands for both of its words.
                var width = variant.Widths?[i] ?? 1;
                sum += width * _bestWeight[_folded[variant.Folded[i]]];
                words += width;
            }

        return sum / words;
    }

    private List<string> MissingWords(TermSet.Ready term)
    {
        List<string>? fewest = null;
        foreach (var variant in term.Variants)
        {
            var missing = new List<string>();
            var at = 0;
            for (var i = 0; i < variant.Folded.Length; i++)
            {
                var width = variant.Widths?[i] ?? 1;
                if (!variant.Ignored[i] && _folded[variant.Folded[i]] < 0)
                    for (var k = at; k < at + width; k++)
                        if (!missing.Contains(term.Tokens[k].Word))
                            missing.Add(term.Tokens[k].Word);
                at += width;
            }

            if (fewest is null || missing.Count < fewest.Count)
                fewest = missing;
        }

        return fewest!;
    }

    private List<Span> Spans(TermSet.Ready term, Found found, Grade best)
    {
        var spans = new List<Span>();
        for (var u = 0; u < _listing.Units.Count; u++)
        {
            var unit = _listing.Units[u];
            var grade = found.Fields?[unit.Field] ?? Grade.Missing;
            if (grade >= Grade.Inflected)
                foreach (var (start, end) in found.PhrasesIn(u, grade))
                    spans.Add(Span(unit, start, end));
            else if (grade == Grade.Together ? found.Holds(u) : best == Grade.Spread)
                AddWords(term, u, spans);
        }

        return spans;
    }

    private void AddWords(TermSet.Ready term, int unit, List<Span> spans)
    {
        var places = new SortedSet<(int Start, int End)>();
        foreach (var variant in term.Variants)
        {
            if (!WordsStand(variant))
                continue;
            for (var i = 0; i < variant.Folded.Length; i++)
                if (!variant.Ignored[i] && FirstIn(unit, _folded[variant.Folded[i]]) is { } place)
                    places.Add((place >> 1, (place >> 1) + 1 + (place & ListingIndex.Pair)));
        }

        foreach (var (start, end) in places)
            spans.Add(Span(_listing.Units[unit], start, end));
    }

    private int? FirstIn(int unit, int folded)
    {
        int? first = null;
        foreach (var place in _listing.FoldPlaces(folded))
            if (_listing.UnitAt(place >> 1) == unit && (first is null || place < first))
                first = place;
        return first;
    }

    private Span Span(ListingIndex.IndexedUnit unit, int start, int end)
    {
        var from = _listing.TokenAt(start).Start;
        return new(Field(unit.Field).Key, unit.Item, from, _listing.TokenAt(end - 1).End - from);
    }

    // What has been found of one term so far.
    private sealed class Found(Matcher matcher)
    {
        private List<(int Unit, Grade Grade, int Start, int End)>? _phrases;
        private HashSet<int>? _units;

        public Grade[]? Fields { get; private set; }

        public double[]? Strengths { get; private set; }

        public bool Any => Fields is not null;

        public Grade Best => Fields is null ? Grade.Missing : Fields.Max();

        public void Phrase(Grade grade, double factor, int start, int end)
        {
            var number = matcher._listing.UnitAt(start);
            var unit = matcher._listing.Units[number];
            var field = matcher.Field(unit.Field);
            var front = field.Front ? 1 - 0.3 * (start - unit.Start) / unit.Count : 1;
            (_phrases ??= []).Add((number, grade, start, end));
            this.Field(unit.Field, grade, field.Weight * factor * front);
        }

        public void Unit(int number)
        {
            (_units ??= []).Add(number);
            var field = matcher._listing.Units[number].Field;
            Field(field, Grade.Together, matcher.Field(field).Weight * TogetherFactor);
        }

        public void Field(int number, Grade grade, double strength)
        {
            Fields ??= new Grade[matcher._noFields.Length];
            Strengths ??= new double[matcher._noFields.Length];
            if (grade > Fields[number])
                Fields[number] = grade;
            Strengths[number] = Math.Max(Strengths[number], strength);
        }

        public bool Holds(int unit) => _units?.Contains(unit) == true;

        public IEnumerable<(int Start, int End)> PhrasesIn(int unit, Grade grade) =>
            _phrases!.Where(p => p.Unit == unit && p.Grade == grade).Select(p => (p.Start, p.End)).Distinct().OrderBy(p => p.Start);
    }
}
