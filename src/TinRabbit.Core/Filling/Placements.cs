using TinRabbit.Core.Matching;
using TinRabbit.Core.Measures;
using TinRabbit.Core.Platforms;
using TinRabbit.Core.Words;

namespace TinRabbit.Core.Filling;

/// <summary>Which picks may stand in the fields of a listing: what holds for all of its fields is worked out once.</summary>
internal sealed class Placements
{
    private readonly Platform _platform;
    private readonly IReadOnlyList<WantedTerm> _terms;
    private readonly string? _leadKey;
    private readonly Dictionary<string, LeftOut> _nowhere = new(StringComparer.Ordinal);

    /// <param name="platform">The platform.</param>
    /// <param name="terms">The picks.</param>
    /// <param name="lead">The lead, which may stand anywhere; null where there is none.</param>
    /// <param name="facts">What is true of the product; null where nothing is known.</param>
    /// <param name="avoided">What must not be said.</param>
    public Placements(Platform platform, IReadOnlyList<WantedTerm> terms, string? lead, FactWords? facts, AvoidedTerms avoided)
    {
        (_platform, _terms, _leadKey) = (platform, terms, lead is null ? null : Tokens.Key(lead));
        var banned = avoided.NumbersIn([.. terms.Select(t => t.Text)]);
        for (var i = 0; i < terms.Count; i++)
        {
            var term = terms[i];
            var leftOut =
                banned.Contains(i) || term.Home == Home.Avoid ? new(term.Text, LeftOutReason.Avoided)
                : facts is not null && Facets.Unbacked(term.Text, facts) is { Count: > 0 } claims
                    ? new LeftOut(term.Text, LeftOutReason.Untrue) { Claims = claims }
                : term.Home == Home.Later ? new(term.Text, LeftOutReason.Home)
                : null;
            if (leftOut is not null)
                _nowhere.TryAdd(term.Text, leftOut);
        }
    }

    /// <summary>Which picks may stand in a field.</summary>
    public Placement In(Field field)
    {
        var leftOut = new Dictionary<string, LeftOut>(_nowhere, StringComparer.Ordinal);
        foreach (var term in _terms)
            if (!IsHome(field, term.Home) && Tokens.Key(term.Text) != _leadKey)
                leftOut.TryAdd(term.Text, new(term.Text, LeftOutReason.Home));
        return new(_terms, leftOut);
    }

    private bool IsHome(Field field, Home home)
    {
        if (home is Home.Anywhere or Home.Later or Home.Avoid || !_platform.Fields.Any(f => HomeOf(f) == home))
            return true;
        // Nobody reads the backend: the words of any pick may be there.
        return HomeOf(field) is { } here && (here == home || here == Home.Backend);
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
