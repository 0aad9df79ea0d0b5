using TinRabbit.Core.Matching;
using TinRabbit.Core.Measures;
using TinRabbit.Core.Platforms;
using TinRabbit.Core.Words;

namespace TinRabbit.Core.Filling;

/// <summary>Which picks may stand in a field: those that are true of the product, avoid nothing, and whose home the field is (docs/model.md, "Fill").</summary>
internal sealed class Placement
{
    private readonly Dictionary<string, LeftOut> _leftOut = new(StringComparer.Ordinal);

    /// <param name="platform">The platform.</param>
    /// <param name="field">The field.</param>
    /// <param name="terms">The picks.</param>
    /// <param name="lead">The lead, which may stand anywhere; null where there is none.</param>
    /// <param name="facts">What is true of the product; null where nothing is known.</param>
    /// <param name="avoided">What must not be said.</param>
    public Placement(Platform platform, Field field, IReadOnlyList<WantedTerm> terms, string? lead, FactWords? facts, AvoidedTerms avoided)
    {
        var banned = avoided.NumbersIn([.. terms.Select(t => t.Text)]);
        var leadKey = lead is null ? null : Tokens.Key(lead);
        for (var i = 0; i < terms.Count; i++)
        {
            var term = terms[i];
            var leftOut =
                banned.Contains(i) || term.Home == Home.Avoid ? new(term.Text, LeftOutReason.Avoided)
                : facts is { AreGiven: true } && Facets.Unbacked(term.Text, facts) is { Count: > 0 } claims
                    ? new LeftOut(term.Text, LeftOutReason.Untrue) { Claims = claims }
                : term.Home == Home.Later || (!IsHome(platform, field, term.Home) && Tokens.Key(term.Text) != leadKey)
                    ? new(term.Text, LeftOutReason.Home)
                : null;
            if (leftOut is not null)
                _leftOut.TryAdd(term.Text, leftOut);
        }
    }

    /// <summary>Whether a pick may stand in the field.</summary>
    public bool Allows(WantedTerm term) => !_leftOut.ContainsKey(term.Text);

    /// <summary>Leaves out picks that the field has no room for.</summary>
    public void LeaveOutLong(IEnumerable<WantedTerm> terms)
    {
        foreach (var term in terms)
            _leftOut.TryAdd(term.Text, new(term.Text, LeftOutReason.TooLong));
    }

    /// <summary>What is left out, in the order of the picks.</summary>
    public IReadOnlyList<LeftOut> LeftOut(IReadOnlyList<WantedTerm> terms) =>
        [.. terms.Select(t => _leftOut.GetValueOrDefault(t.Text)).OfType<LeftOut>().Distinct()];

    /// <summary>Whether a field is the home of a pick.</summary>
    private static bool IsHome(Platform platform, Field field, Home home)
    {
        if (home == Home.Anywhere || !platform.Fields.Any(f => HomeOf(f) == home))
            return true;
        // Nobody reads the backend: the words of any pick may be there.
        return HomeOf(field) == home || (HomeOf(field) == Home.Backend && home is not (Home.Later or Home.Avoid));
    }

    private static Home? HomeOf(Field field) =>
        field.Role switch
        {
            "title" or "heading" => Home.Title,
            "tags" => Home.Tags,
            "bullets" => Home.Bullets,
            "backend" => Home.Backend,
            "body" or "description" => Home.Description,
            _ => null,
        };
}
