namespace TinRabbit.Core.Matching;

/// <summary>How a field's strength for a term was worked out: weight × factor × front.</summary>
/// <param name="Field">The field's key.</param>
/// <param name="Grade">The grade of the occurrence that counts.</param>
/// <param name="Weight">The field's weight, 0–1.</param>
/// <param name="Factor">The grade's factor.</param>
/// <param name="Token">Where the phrase begins, in tokens from 0; null where its place does not count.</param>
/// <param name="Tokens">How many tokens the field has room for; null where the place does not count.</param>
/// <param name="Front">1 − 0.3·min(1, token/tokens); 1 where the place does not count.</param>
/// <param name="Strength">The product of the three, 0–1.</param>
public sealed record FieldStrength(
    string Field,
    Grade Grade,
    double Weight,
    double Factor,
    int? Token,
    int? Tokens,
    double Front,
    double Strength
);
