using TinRabbit.Core.Matching;

namespace TinRabbit.Core.Filling.Tags;

/// <summary>
/// The chosen phrases and Σ worth·grip with them, kept up to date as phrases come and go. Only the terms that a phrase holds, or whose words
/// it adds or removes, are evaluated again.
/// </summary>
internal sealed class TagState
{
    // The number of missing words of a term that is held already.
    private const int Held = int.MaxValue;

    private readonly TagPhrases _phrases;
    private readonly OtherFields _otherFields;
    private readonly double _fieldWeight;
    private readonly List<int> _chosen = [];
    private readonly List<double>[] _strengthsOfHolders;
    private readonly double[] _strengths;
    private readonly double[] _values;
    private readonly int[] _missingWords;
    private readonly int[] _wordCounts;
    private readonly List<int> _changedTerms = [];
    private readonly int[] _seen;
    private int _mark;

    /// <param name="phrases">The phrases; those that stand are part of every state.</param>
    /// <param name="otherFields">What the other fields give to each term.</param>
    /// <param name="fieldWeight">Weight of the field that is filled, 0–1.</param>
    public TagState(TagPhrases phrases, OtherFields otherFields, double fieldWeight)
    {
        (_phrases, _otherFields, _fieldWeight) = (phrases, otherFields, fieldWeight);
        var terms = otherFields.WorthByTerm.Length;
        (_strengths, _values, _seen, _missingWords) = (new double[terms], new double[terms], new int[terms], new int[terms]);
        _wordCounts = new int[otherFields.Prepared.Folded.Count];
        _strengthsOfHolders = [.. Enumerable.Range(0, terms).Select(_ => new List<double>(1))];
        for (var t = 0; t < terms; t++)
            Evaluate(t);
        for (var c = 0; c < phrases.FixedCount; c++)
            Apply(c, 1);
    }

    /// <summary>Σ worth·grip over the terms.</summary>
    public double Worth { get; private set; }

    /// <summary>Elementary steps that are left to the search.</summary>
    public long StepsLeft { get; set; }

    public bool Holds(int term) => _strengths[term] > 0;

    public bool IsChosen(int phrase) => _chosen.Contains(phrase);

    /// <summary>Makes these the chosen phrases.</summary>
    public void SetChosen(IReadOnlyList<int> phrases)
    {
        for (var i = _chosen.Count - 1; i >= 0; i--)
            if (!phrases.Contains(_chosen[i]))
                Remove(_chosen[i]);
        foreach (var phrase in phrases)
            if (!_chosen.Contains(phrase))
                Add(phrase);
    }

    public void Add(int phrase)
    {
        _chosen.Add(phrase);
        Apply(phrase, 1);
    }

    public void Remove(int phrase)
    {
        _chosen.Remove(phrase);
        Apply(phrase, -1);
    }

    /// <summary>What a phrase would add to <see cref="Worth"/>.</summary>
    public double GainOf(int phrase)
    {
        _mark++;
        var (held, words, counts) = (_phrases.HeldTerms[phrase], _phrases.Words[phrase], _wordCounts);
        StepsLeft -= held.Length + words.Length;
        var gain = 0.0;
        foreach (var (term, strength) in held)
        {
            _seen[term] = _mark;
            if (strength > _strengths[term])
                gain += _otherFields.WeightedGrip(term, strength, counts) - _values[term];
        }

        var added = 0;
        foreach (var word in words)
            if (counts[word]++ == 0)
                added++;
        foreach (var word in words)
        {
            // Only a word that is new to the field can complete a term, or weigh more than where it stands now.
            if (counts[word] > 1)
                continue;
            var terms = _otherFields.TermsOfWord[word];
            StepsLeft -= terms.Length / 8;
            foreach (var term in terms)
                if (_missingWords[term] <= added && _seen[term] != _mark)
                {
                    _seen[term] = _mark;
                    gain += _otherFields.WeightedGrip(term, 0, counts) - _values[term];
                }
        }

        foreach (var word in words)
            counts[word]--;
        return gain;
    }

    /// <summary>What <see cref="Worth"/> would lose without a chosen phrase.</summary>
    public double LossOf(int phrase)
    {
        var with = Worth;
        Remove(phrase);
        var loss = with - Worth;
        Add(phrase);
        return loss;
    }

    /// <summary>An estimate of what a phrase could add together with others: of each term that lacks words, the share that its words have in it.</summary>
    public double PotentialOf(int phrase)
    {
        var potential = 0.0;
        foreach (var word in _phrases.Words[phrase])
        foreach (var term in _otherFields.TermsOfWord[word])
            if (_missingWords[term] is > 0 and < Held)
                potential += _otherFields.WorthByTerm[term] * Matcher.SpreadFactor * _fieldWeight / (2 * _missingWords[term]);
        return potential;
    }

    private void Apply(int phrase, int change)
    {
        _mark++;
        _changedTerms.Clear();
        foreach (var (term, strength) in _phrases.HeldTerms[phrase])
        {
            var holders = _strengthsOfHolders[term];
            if (change > 0)
                holders.Add(strength);
            else
                holders.Remove(strength);
            _strengths[term] = holders.Count == 0 ? 0 : holders.Max();
            Mark(term);
        }

        foreach (var word in _phrases.Words[phrase])
            if ((_wordCounts[word] += change) == Math.Max(change, 0))
                foreach (var term in _otherFields.TermsOfWord[word])
                    Mark(term);
        StepsLeft -= _changedTerms.Count;
        foreach (var term in _changedTerms)
            Evaluate(term);

        void Mark(int term)
        {
            if (_seen[term] == _mark)
                return;
            _seen[term] = _mark;
            _changedTerms.Add(term);
        }
    }

    private void Evaluate(int term)
    {
        _missingWords[term] = _strengths[term] > 0 || _otherFields.Held[term] ? Held : _otherFields.MissingWordCount(term, _wordCounts);
        var value = _missingWords[term] is > 0 and < Held ? 0 : _otherFields.WeightedGrip(term, _strengths[term], _wordCounts);
        Worth += value - _values[term];
        _values[term] = value;
    }
}
