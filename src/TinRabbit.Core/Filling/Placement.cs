using TinRabbit.Core.Measures;

namespace TinRabbit.Core.Filling;

/// <summary>Which picks may stand in one field: those that are true of the product, avoid nothing, and whose home it is (docs/model.md, "Fill").</summary>
/// <param name="terms">The picks.</param>
/// <param name="leftOut">Those that may not, by their texts.</param>
internal sealed class Placement(IReadOnlyList<WantedTerm> terms, Dictionary<string, LeftOut> leftOut)
{
    /// <summary>Whether a pick may stand in the field.</summary>
    public bool Allows(WantedTerm term) => !leftOut.ContainsKey(term.Text);

    /// <summary>Leaves out picks that the field has no room for.</summary>
    public void LeaveOutLong(IEnumerable<WantedTerm> tooLong)
    {
        foreach (var term in tooLong)
            leftOut.TryAdd(term.Text, new(term.Text, LeftOutReason.TooLong));
    }

    /// <summary>What is left out, in the order of the picks.</summary>
    public IReadOnlyList<LeftOut> LeftOut => [.. terms.Select(t => leftOut.GetValueOrDefault(t.Text)).OfType<LeftOut>().Distinct()];
}
