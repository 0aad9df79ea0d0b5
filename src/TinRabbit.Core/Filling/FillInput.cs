using TinRabbit.Core.Matching;
using TinRabbit.Core.Measures;
using TinRabbit.Core.Platforms;

namespace TinRabbit.Core.Filling;

/// <summary>A field to fill, and what it is filled from.</summary>
/// <param name="Platform">Its limits and folds.</param>
/// <param name="Copy">The listing's fields.</param>
/// <param name="Key">The field to fill.</param>
/// <param name="Terms">The terms wanted.</param>
/// <param name="Avoid">Terms that must not be said; wanted terms that contain one are left out.</param>
public sealed record FillInput(
    Platform Platform,
    IReadOnlyDictionary<string, FieldValue> Copy,
    string Key,
    IReadOnlyList<WantedTerm> Terms,
    IReadOnlyList<string> Avoid
)
{
    /// <summary>The term that comes first; null where any may. Fills with separate words ignore it.</summary>
    public string? Lead { get; init; }

    /// <summary>Terms that the seller wants in another field: they count, but are not said here. Fills with separate words ignore it.</summary>
    public IReadOnlySet<string> Elsewhere { get; init; } = new HashSet<string>();

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

    /// <summary>The terms without those that contain something avoided, in the order given.</summary>
    internal List<WantedTerm> AllowedTerms(AvoidedTerms avoided)
    {
        var banned = avoided.NumbersIn([.. Terms.Select(t => t.Text)]);
        return banned.Count == 0 ? [.. Terms] : [.. Terms.Where((_, i) => !banned.Contains(i))];
    }

    /// <summary>The listing with another value of the field.</summary>
    internal Dictionary<string, FieldValue> With(FieldValue value) => new(Copy) { [Key] = value };
}
