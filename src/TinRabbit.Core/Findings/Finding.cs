namespace TinRabbit.Core.Findings;

/// <summary>One thing that a check says about the copy.</summary>
/// <param name="Id">Which check, as <c>lead-not-whole</c>.</param>
/// <param name="Level">How much it matters.</param>
/// <param name="Field">The field it is about.</param>
/// <param name="Item">The item of a list field, from 0; 0 for a text.</param>
/// <param name="Start">Where it begins in the text, in UTF-16 units.</param>
/// <param name="Length">How long it is; 0 where it is about the field as a whole.</param>
/// <param name="Why">One or two sentences: what is wrong, and why it matters.</param>
/// <param name="Fix">An edit that fixes it; null where a person has to.</param>
public sealed record Finding(string Id, Level Level, string Field, int Item, int Start, int Length, string Why, Fix? Fix = null)
{
    /// <summary>Other edits that would settle it as well: the seller chooses.</summary>
    public IReadOnlyList<Fix> OtherFixes { get; init; } = [];

    /// <summary>What else it is about, where a field can have several findings of one kind: an attribute.</summary>
    public string Subject { get; init; } = "";

    /// <summary>The claim that is missing in the facts; null for other findings.</summary>
    public Words.Claim? Claim { get; init; }

    /// <summary>What it costs: grip that the fix gains, 0–100; 0 where that is not known.</summary>
    public double Cost { get; init; }

    /// <summary>Names the finding as long as the text it is about stays the same: a dismissal is stored under it.</summary>
    public string Key { get; init; } = "";
}
