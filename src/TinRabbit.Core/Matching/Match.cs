namespace TinRabbit.Core.Matching;

/// <summary>What a listing holds of one term.</summary>
/// <param name="Grade">The best over the fields.</param>
/// <param name="Fields">The best grade of each indexed field's units, in the platform's order; spread is a thing between fields and never stands here.</param>
/// <param name="Strengths">Strength in each indexed field, 0–1; 0 where the field alone does not hold the term.</param>
/// <param name="Spread">For <see cref="Grade.Spread"/>: mean over its words of the highest weight among fields holding the word; otherwise 0.</param>
/// <param name="Missing">Words that stand nowhere, in the term's order, each once.</param>
/// <param name="Apart">True where all words stand but the platform does not combine them.</param>
/// <param name="Spans">Where it is held, for the grade of each field.</param>
public sealed record Match(
    Grade Grade,
    Grade[] Fields,
    double[] Strengths,
    double Spread,
    IReadOnlyList<string> Missing,
    bool Apart,
    IReadOnlyList<Span> Spans
);
