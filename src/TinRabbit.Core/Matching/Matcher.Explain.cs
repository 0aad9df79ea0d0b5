namespace TinRabbit.Core.Matching;

/// <content>What the matcher says of one term when somebody asks why: fields, strengths, missing words and places.</content>
public sealed partial class Matcher
{
    /// <summary>All that the listing holds of the term with this number: field by field, what is missing, and where it stands.</summary>
    public Match Explain(int number)
    {
        var term = _terms.Terms[number];
        if (LacksRequiredWord(number))
            return new(Matching.Grade.Missing, _noGrades, _noStrengths, 0, MissingWords(term), false, []);
        var (grade, spread, standing) = EvaluateAndKeep(term);
        var lost = grade == Matching.Grade.Missing;
        return new(
            grade,
            [.. _grades],
            [.. _strengths],
            grade == Matching.Grade.Spread ? spread : 0,
            lost && !standing ? MissingWords(term) : [],
            lost && standing,
            Spans(term, grade)
        );
    }

    /// <summary>The units that hold the term by themselves, each with the strength that it lends its field, 0–1.</summary>
    internal IReadOnlyDictionary<int, double> StrengthByUnit(int number)
    {
        var holding = new Dictionary<int, double>();
        if (LacksRequiredWord(number))
            return holding;
        EvaluateAndKeep(_terms.Terms[number]);
        foreach (var (unit, grade, start, _) in _phrases)
            Record(unit, PhraseStrength(_listing.Units[unit], grade == Matching.Grade.Whole ? 1 : InflectedFactor, start));
        foreach (var unit in _units)
            Record(unit, Field(_listing.Units[unit].Field).Weight * TogetherFactor);
        return holding;

        void Record(int unit, double strength) => holding[unit] = Math.Max(strength, holding.GetValueOrDefault(unit));
    }

    /// <summary>How each field's strength for the term with this number was worked out, by the occurrence that counts; only fields that hold the term.</summary>
    public IReadOnlyList<FieldStrength> Strengths(int number)
    {
        if (LacksRequiredWord(number))
            return [];
        EvaluateAndKeep(_terms.Terms[number]);
        var best = new Dictionary<int, FieldStrength>();
        foreach (var (place, grade, start, _) in _phrases)
        {
            var unit = _listing.Units[place];
            var (field, factor) = (Field(unit.Field), grade == Matching.Grade.Whole ? 1 : InflectedFactor);
            var token = start - unit.Start;
            Record(
                unit.Field,
                field.Front
                    ? new(
                        field.Key,
                        grade,
                        field.Weight,
                        factor,
                        token,
                        field.RoomInTokens,
                        FrontAt(field, token),
                        PhraseStrength(unit, factor, start)
                    )
                    : new(field.Key, grade, field.Weight, factor, null, null, 1, PhraseStrength(unit, factor, start))
            );
        }

        foreach (var unit in _units)
            if (Field(_listing.Units[unit].Field) is var field)
                Record(
                    _listing.Units[unit].Field,
                    new(field.Key, Matching.Grade.Together, field.Weight, TogetherFactor, null, null, 1, field.Weight * TogetherFactor)
                );
        return [.. best.OrderBy(b => b.Key).Select(b => b.Value)];

        void Record(int field, FieldStrength strength)
        {
            if (!best.TryGetValue(field, out var before) || strength.Strength > before.Strength)
                best[field] = strength;
        }
    }

    /// <summary>Every place where the term stands as a phrase, whole or in another form.</summary>
    internal List<Span> PhraseSpans(int number)
    {
        if (LacksRequiredWord(number))
            return [];
        EvaluateAndKeep(_terms.Terms[number]);
        return
        [
            .. _phrases.Select(p => (p.Unit, p.Start, p.End)).Distinct().Order().Select(p => Span(_listing.Units[p.Unit], p.Start, p.End)),
        ];
    }

    // Looks for a term, and remembers every place and unit where it stands.
    private (Grade Grade, double Spread, bool Standing) EvaluateAndKeep(TermSet.PreparedTerm term)
    {
        _keepPlaces = true;
        _phrases.Clear();
        _units.Clear();
        return Evaluate(term);
    }

    private List<string> MissingWords(TermSet.PreparedTerm term)
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

    private List<Span> Spans(TermSet.PreparedTerm term, Grade best)
    {
        var spans = new List<Span>();
        for (var u = 0; best > Matching.Grade.Missing && u < _listing.Units.Count; u++)
        {
            var unit = _listing.Units[u];
            var grade = _grades[unit.Field];
            if (grade >= Matching.Grade.Inflected)
                foreach (
                    var (start, end) in _phrases
                        .Where(p => p.Unit == u && p.Grade == grade)
                        .Select(p => (p.Start, p.End))
                        .Distinct()
                        .OrderBy(p => p.Start)
                )
                    spans.Add(Span(unit, start, end));
            else if (grade == Matching.Grade.Together ? _units.Contains(u) : best == Matching.Grade.Spread)
                AddWords(term, u, spans);
        }

        return spans;
    }

    private void AddWords(TermSet.PreparedTerm term, int unit, List<Span> spans)
    {
        var places = new SortedSet<(int Start, int End)>();
        foreach (var variant in term.Variants)
            if (!variant.OnlyIgnored && HasAllWords(variant))
                for (var i = 0; i < variant.Folded.Length; i++)
                    if (!variant.Ignored[i] && FirstIn(unit, _folded[variant.Folded[i]]) is { } place)
                        places.Add((place >> 1, (place >> 1) + 1 + (place & ListingIndex.Pair)));
        foreach (var (start, end) in places)
            spans.Add(Span(_listing.Units[unit], start, end));
    }

    private int? FirstIn(int unit, int folded)
    {
        if ((_unitMasks[folded * _maskWidth + (unit >> 6)] >> (unit & 63) & 1) == 0)
            return null;
        foreach (var place in _listing.FoldPostings(folded))
            if (_listing.UnitAt(place >> 1) == unit)
                return place;
        return null;
    }

    private Span Span(ListingIndex.IndexedUnit unit, int start, int end)
    {
        var from = _listing.TokenAt(start).Start;
        return new(Field(unit.Field).Key, unit.Item, from, _listing.TokenAt(end - 1).End - from);
    }
}
