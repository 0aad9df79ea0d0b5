using TinRabbit.Core.Matching;

namespace TinRabbit.Core.Measures;

/// <summary>What a listing holds of one term, and what that is worth. The explanation is worked out when it is asked for.</summary>
public readonly struct WeighedTerm
{
    private readonly Matcher _matcher;
    private readonly NearMisses _near;
    private readonly int _number;

    internal WeighedTerm(WantedTerm term, Grade grade, double grip, Matcher matcher, NearMisses near, int number) =>
        (Term, Grade, Grip, _matcher, _near, _number) = (term, grade, grip, matcher, near, number);

    /// <summary>The term.</summary>
    public WantedTerm Term { get; }

    /// <summary>How firmly the listing holds it.</summary>
    public Grade Grade { get; }

    /// <summary>0–1.</summary>
    public double Grip { get; }

    /// <summary>Where and how it is held, and what is missing.</summary>
    public Match Explain() => _matcher.Explain(_number);

    /// <summary>How the strength of each field that holds it was worked out.</summary>
    public IReadOnlyList<FieldStrength> Strengths() => _matcher.Strengths(_number);

    /// <summary>Missing words that stand in a form which the platform does not fold.</summary>
    public IReadOnlyList<NearMiss> Near(Match match) => _near.Of(_matcher.PreparedOf(_number), match.Missing);
}
