using TinRabbit.Core.Platforms;

namespace TinRabbit.Core.Findings;

/// <summary>An edit that would settle a finding.</summary>
/// <param name="Label">What it does, as a verb a button can carry.</param>
/// <param name="Field">The field it changes.</param>
/// <param name="Value">The field's new value.</param>
public sealed record Fix(string Label, string Field, FieldValue Value);
