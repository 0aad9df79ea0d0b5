using TinRabbit.Core.Matching;
using TinRabbit.Core.Measures;
using TinRabbit.Core.Platforms;
using TinRabbit.Core.Words;

namespace TinRabbit.Core.Filling;

/// <summary>A field to fill, and what it is filled from.</summary>
/// <param name="Platform">Its limits and folds.</param>
/// <param name="Copy">The listing's fields.</param>
/// <param name="Key">The field to fill.</param>
/// <param name="Terms">The terms wanted. All count; only those that may stand in the field are used.</param>
/// <param name="Avoid">Terms that must not be said; wanted terms that contain one are not used.</param>
public sealed record FillInput(
    Platform Platform,
    IReadOnlyDictionary<string, FieldValue> Copy,
    string Key,
    IReadOnlyList<WantedTerm> Terms,
    IReadOnlyList<string> Avoid
)
{
    /// <summary>The terms wanted, each with the number that it counts for.</summary>
    public IReadOnlyList<WantedTerm> Terms { get; init; } = PickDemand.Assume(Terms);

    /// <summary>The term that comes first; null where any may. Fills with separate words ignore it.</summary>
    public string? Lead { get; init; }

    /// <summary>What is true of the product: terms that claim more are not used. Null where nothing is known.</summary>
    public FactWords? Facts { get; init; }

    /// <summary>How much the search may do: 1 is the usual budget of steps, 0.5 half of it; more than 0.</summary>
    public double Budget { get; init; } = 1;

    /// <summary>The field, found by its key.</summary>
    /// <exception cref="InvalidInputException">The platform has no such field.</exception>
    internal Field Field =>
        Platform.Find(Key) ?? throw new InvalidInputException([new("field", $"{Platform.Name} has no field \"{Key}\".")]);

    /// <summary>The field, where its search reads it.</summary>
    /// <exception cref="InvalidInputException">There is no such field, or its words bring no searches.</exception>
    internal Field IndexedField =>
        Field.Indexed
            ? Field
            : throw new InvalidInputException([
                new("field", $"{Platform.Name} does not search {Field.Label}, so words there bring no searches."),
            ]);

    /// <summary>What must not be said: the avoided terms, and the terms whose home says so.</summary>
    internal AvoidedTerms Avoided() => new(Platform, [.. Avoid, .. Terms.Where(t => t.Home == Home.Avoid).Select(t => t.Text)]);

    /// <summary>Which terms may stand in the field.</summary>
    internal Placement Placement(AvoidedTerms avoided) => new Placements(Platform, Terms, Lead, Facts, avoided).In(Field);

    /// <summary>The listing with another value of the field.</summary>
    internal Dictionary<string, FieldValue> With(FieldValue value) => new(Copy) { [Key] = value };
}
