using TinRabbit.Core.Matching;
using TinRabbit.Core.Platforms;

namespace TinRabbit.Core.Measures;

/// <summary>
/// Weighs a listing again and again with other values of one of its fields. What the other fields hold of each term is worked out once:
/// grip is 1 − Π(1 − strength) over fields, so one field's factor can be exchanged.
/// </summary>
internal sealed class OneFieldWeigher
{
    private readonly TermSet _terms;
    private readonly Platform _ofField;
    private readonly Field _field;
    private readonly Matcher _others;
    private readonly double[] _loose;
    private readonly bool[] _held;
    private readonly double[] _worth;

    /// <param name="terms">The terms, prepared for the platform.</param>
    /// <param name="copy">The listing.</param>
    /// <param name="wanted">The same terms with their numbers.</param>
    /// <param name="field">The field that changes; the search reads it.</param>
    public OneFieldWeigher(TermSet terms, IReadOnlyDictionary<string, FieldValue> copy, IReadOnlyList<WantedTerm> wanted, Field field)
    {
        (_terms, _field) = (terms, field);
        _ofField = terms.Platform with { Fields = [field] };
        var others = terms.Platform with { Fields = [.. terms.Platform.Fields.Where(f => f.Key != field.Key)] };
        _others = new(terms, ListingIndex.Build(others, copy));
        (_loose, _held, _worth) = (new double[wanted.Count], new bool[wanted.Count], new double[wanted.Count]);
        for (var i = 0; i < wanted.Count; i++)
        {
            _worth[i] = wanted[i].Worth();
            (_held[i], _loose[i]) = _others.Looseness(i);
        }
    }

    /// <summary>Σ worth·grip of the listing with this value of the field.</summary>
    public double Gripped(FieldValue value)
    {
        var own = new Matcher(_terms, ListingIndex.Build(_ofField, new Dictionary<string, FieldValue> { [_field.Key] = value }));
        var sum = 0.0;
        for (var i = 0; i < _worth.Length; i++)
        {
            if (_worth[i] == 0)
                continue;
            var (held, loose) = own.Looseness(i);
            if (held || _held[i])
                sum += _worth[i] * (1 - loose * _loose[i]);
            else if (_terms.Platform.Search.WordsCombine)
                sum += _worth[i] * Matcher.SpreadFactor * Matcher.SpreadOver(_terms.Terms[i], own, _others);
        }

        return sum;
    }
}
