using TinRabbit.Core.Platforms;

namespace TinRabbit.Core.Matching;

/// <summary>
/// Grades terms against a listing. Each distinct word of the terms is looked up once in the listing's index; a term then
/// reads numbers, and only terms whose every word stands are looked at more closely. One thread at a time.
/// </summary>
public sealed partial class Matcher
{
    /// <summary>Factor of <see cref="Matching.Grade.Inflected"/> in a field's strength.</summary>
    public const double InflectedFactor = 0.85;

    /// <summary>Factor of <see cref="Matching.Grade.Together"/> in a field's strength.</summary>
    public const double TogetherFactor = 0.6;

    /// <summary>What a phrase loses where the front counts, at the end of the field's room and beyond.</summary>
    public const double FrontShare = 0.3;

    /// <summary>What a term spread over several fields keeps of its words' mean weight.</summary>
    public const double SpreadFactor = 0.35;

    private readonly TermSet _terms;
    private readonly ListingIndex _listing;
    private readonly bool _combine;
    private readonly bool _wholeIsInflected;
    private readonly int[] _letters;
    private readonly int[] _folded;
    private readonly int _maskWidth;
    private readonly ulong[] _unitMasks;
    private readonly double[] _bestWeight;
    private readonly Grade[] _noGrades;
    private readonly double[] _noStrengths;

    // The result for the current term; one term is evaluated at a time.
    private readonly Grade[] _grades;
    private readonly double[] _strengths;
    private readonly List<(int Unit, Grade Grade, int Start, int End)> _phrases = [];
    private readonly List<int> _units = [];
    private bool _keepPlaces;

    /// <summary>Looks every word of the terms up in the listing.</summary>
    public Matcher(TermSet terms, ListingIndex listing)
    {
        _terms = terms;
        _listing = listing;
        _combine = terms.Platform.Search.WordsCombine;
        _wholeIsInflected = terms.Platform.Search.Folds.HasFlag(Words.Folds.Diacritics);
        _letters = Find(terms.Letters.Count, listing.LetterWords, terms.FindLetters, []);
        var found = new List<int>();
        _folded = Find(terms.Folded.Count, listing.FoldedWords, terms.FindFolded, found);
        FoundWords = found;
        _maskWidth = (listing.Units.Count + 63) / 64;
        _unitMasks = new ulong[listing.FoldCount * _maskWidth];
        _bestWeight = new double[listing.FoldCount];
        for (var folded = 0; folded < listing.FoldCount; folded++)
            foreach (var place in listing.FoldPostings(folded))
            {
                var unit = listing.UnitAt(place >> 1);
                _unitMasks[folded * _maskWidth + (unit >> 6)] |= 1UL << (unit & 63);
                _bestWeight[folded] = Math.Max(_bestWeight[folded], Field(listing.Units[unit].Field).Weight);
            }

        _noGrades = new Grade[listing.Fields.Count];
        _noStrengths = new double[listing.Fields.Count];
        _grades = new Grade[listing.Fields.Count];
        _strengths = new double[listing.Fields.Count];
    }

    /// <summary>How firmly the listing holds the term with this number, and its grip, 0–1 (docs/model.md, "Reach and grip").</summary>
    public (Grade Grade, double Grip) Grade(int number)
    {
        if (LacksRequiredWord(number))
            return (Matching.Grade.Missing, 0);
        _keepPlaces = false;
        var (grade, spread, _) = Evaluate(_terms.Terms[number]);
        if (grade == Matching.Grade.Missing)
            return (grade, 0);
        if (grade == Matching.Grade.Spread)
            return (grade, SpreadFactor * spread);
        var loose = 1.0;
        foreach (var strength in _strengths)
            loose *= 1 - strength;
        return (grade, 1 - loose);
    }

    /// <summary>Whether a field holds the term with this number by itself, and Π(1 − strength) over the fields; 1 where none holds it.</summary>
    internal (bool Held, double Loose) Looseness(int number)
    {
        if (LacksRequiredWord(number))
            return (false, 1);
        _keepPlaces = false;
        Evaluate(_terms.Terms[number]);
        var (held, loose) = (false, 1.0);
        for (var field = 0; field < _strengths.Length; field++)
        {
            held |= _grades[field] != Matching.Grade.Missing;
            loose *= 1 - _strengths[field];
        }

        return (held, loose);
    }

    /// <summary>The mean over a term's words of the highest weight among the fields of two parts of one listing; 0 where a word stands in neither.</summary>
    internal static double SpreadOver(TermSet.PreparedTerm term, Matcher one, Matcher other)
    {
        var best = 0.0;
        foreach (var variant in term.Variants)
        {
            if (variant.OnlyIgnored)
                continue;
            var (sum, words) = (0.0, 0);
            for (var i = 0; i < variant.Folded.Length; i++)
            {
                if (variant.Ignored[i])
                    continue;
                var weight = Math.Max(one.WeightOf(variant.Folded[i]), other.WeightOf(variant.Folded[i]));
                if (weight < 0)
                {
                    words = 0;
                    break;
                }

                var width = variant.Widths?[i] ?? 1;
                sum += width * weight;
                words += width;
            }

            if (words > 0)
                best = Math.Max(best, sum / words);
        }

        return best;
    }

    /// <summary>The highest weight among fields holding a word of the terms, by its number among them; −1 where it stands nowhere.</summary>
    internal double WeightOf(int word) => _folded[word] < 0 ? -1 : _bestWeight[_folded[word]];

    /// <summary>The term as it was made ready.</summary>
    internal TermSet.PreparedTerm PreparedOf(int number) => _terms.Terms[number];

    // The listing's number of each word of the terms; −1 where it lacks the word. A listing has fewer words than many terms do.
    private static int[] Find(int count, Dictionary<string, int> listing, Func<string, int> numberOf, List<int> found)
    {
        var numbers = new int[count];
        Array.Fill(numbers, -1);
        foreach (var (word, number) in listing)
            if (numberOf(word) is >= 0 and var at)
            {
                numbers[at] = number;
                found.Add(at);
            }

        return numbers;
    }

    /// <summary>The words of the terms that the listing has, by their numbers among the terms' folded words.</summary>
    internal IReadOnlyList<int> FoundWords { get; }

    /// <summary>The words of the terms that one of two listings has and the other lacks, by their numbers among the terms' folded words.</summary>
    internal IEnumerable<int> WordsThatDiffer(Matcher other)
    {
        foreach (var word in FoundWords)
            if (other._folded[word] < 0)
                yield return word;
        foreach (var word in other.FoundWords)
            if (_folded[word] < 0)
                yield return word;
    }

    /// <summary>Whether the listing lacks a word without which the term with this number can't be held: a quick no, never a yes.</summary>
    internal bool LacksRequiredWord(int number)
    {
        for (var i = _terms.RequiredFrom[number]; i < _terms.RequiredFrom[number + 1]; i++)
            if (_folded[_terms.RequiredWords[i]] < 0)
                return true;
        return false;
    }

    // Fills grades and strengths by field. Standing: every word that counts stands somewhere.
    private (Grade Grade, double Spread, bool Standing) Evaluate(TermSet.PreparedTerm term)
    {
        Array.Clear(_grades);
        Array.Clear(_strengths);
        var (standing, spread) = (false, 0.0);
        foreach (var variant in term.Variants)
        {
            // Where the platform folds diacritics, the search for inflected phrases finds exact ones too.
            var letters = _wholeIsInflected && variant.Widths is null ? term.Letters : null;
            if (variant.OnlyIgnored)
            {
                if (AllFound(variant.Folded, _folded))
                    InflectedPhrases(variant.Folded, letters);
                continue;
            }

            if (!HasAllWords(variant))
                continue;
            standing = true;
            if (RecordTogether(variant) && AllFound(variant.Folded, _folded))
                InflectedPhrases(variant.Folded, letters);
            if (_combine)
                spread = Math.Max(spread, MeanWeight(variant));
        }

        if (!_wholeIsInflected && AllFound(term.Letters, _letters))
            WholePhrases(term.Letters);
        var best = Matching.Grade.Missing;
        foreach (var grade in _grades)
            if (grade > best)
                best = grade;
        return (best == Matching.Grade.Missing && standing && _combine ? Matching.Grade.Spread : best, spread, standing);
    }

    private Field Field(int number) => _listing.Fields[number];

    private static bool AllFound(int[] words, int[] lookup)
    {
        foreach (var word in words)
            if (lookup[word] < 0)
                return false;
        return true;
    }

    private bool HasAllWords(TermSet.TermVariant variant)
    {
        for (var i = 0; i < variant.Folded.Length; i++)
            if (_folded[variant.Folded[i]] < 0 && !variant.Ignored[i])
                return false;
        return true;
    }

    // Letter for letter: go through the places of the rarest word and compare its neighbours.
    private void WholePhrases(int[] letters)
    {
        var rarest = 0;
        for (var i = 1; i < letters.Length; i++)
            if (_listing.LetterPostings(_letters[letters[i]]).Count < _listing.LetterPostings(_letters[letters[rarest]]).Count)
                rarest = i;
        foreach (var place in _listing.LetterPostings(_letters[letters[rarest]]))
            if (IsWhole(letters, place - rarest))
                RecordPhrase(Matching.Grade.Whole, 1, place - rarest, place - rarest + letters.Length);
    }

    private bool IsWhole(int[] letters, int start)
    {
        if (start < 0 || start + letters.Length > _listing.Places)
            return false;
        for (var i = 0; i < letters.Length; i++)
            if (_listing.LetterAt(start + i) != _letters[letters[i]])
                return false;
        return true;
    }

    private void InflectedPhrases(int[] words, int[]? letters)
    {
        var rarest = 0;
        if (!_listing.HasJoins)
            for (var i = 1; i < words.Length; i++)
                if (_listing.FoldPostings(_folded[words[i]]).Count < _listing.FoldPostings(_folded[words[rarest]]).Count)
                    rarest = i;
        foreach (var place in _listing.FoldPostings(_folded[words[rarest]]))
        {
            var start = (place >> 1) - rarest;
            if (start < 0 || EndOfPhrase(words, 0, start) is not (> 0 and var end))
                continue;
            if (letters is not null && IsWhole(letters, start))
                RecordPhrase(Matching.Grade.Whole, 1, start, end);
            else
                RecordPhrase(Matching.Grade.Inflected, InflectedFactor, start, end);
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

    private bool RecordTogether(TermSet.TermVariant variant)
    {
        var any = false;
        for (var w = 0; w < _maskWidth; w++)
        {
            var units = ulong.MaxValue;
            for (var i = 0; i < variant.Folded.Length; i++)
                if (!variant.Ignored[i])
                    units &= _unitMasks[_folded[variant.Folded[i]] * _maskWidth + w];
            for (; units != 0; units &= units - 1)
            {
                any = true;
                var unit = (w << 6) + System.Numerics.BitOperations.TrailingZeroCount(units);
                var field = _listing.Units[unit].Field;
                Raise(field, Matching.Grade.Together, Field(field).Weight * TogetherFactor);
                if (_keepPlaces)
                    _units.Add(unit);
            }
        }

        return any;
    }

    private void RecordPhrase(Grade grade, double factor, int start, int end)
    {
        var number = _listing.UnitAt(start);
        var unit = _listing.Units[number];
        Raise(unit.Field, grade, PhraseStrength(unit, factor, start));
        if (_keepPlaces)
            _phrases.Add((number, grade, start, end));
    }

    private double PhraseStrength(ListingIndex.IndexedUnit unit, double factor, int start)
    {
        var field = Field(unit.Field);
        return field.Weight * factor * FrontAt(field, start - unit.Start);
    }

    /// <summary>
    /// What is left of a phrase's strength by how early it begins: 1 − 0.3·min(1, token/room). It counts by the room of the field and not by
    /// the words that are there, so that words added at the end change nothing for those before them.
    /// </summary>
    /// <param name="field">The field.</param>
    /// <param name="token">Where the phrase begins, in tokens from 0.</param>
    /// <returns>0.7–1; 1 where the front does not count.</returns>
    internal static double FrontAt(Field field, int token) =>
        field.Front ? 1 - FrontShare * Math.Min(1, (double)token / field.RoomInTokens) : 1;

    private void Raise(int field, Grade grade, double strength)
    {
        if (grade > _grades[field])
            _grades[field] = grade;
        if (strength > _strengths[field])
            _strengths[field] = strength;
    }

    private double MeanWeight(TermSet.TermVariant variant)
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
}
