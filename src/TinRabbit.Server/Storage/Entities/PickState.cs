using TinRabbit.Core.Measures;

namespace TinRabbit.Server.Storage;

/// <summary>A pick's values at one time.</summary>
public sealed record PickState(string Text, Fit Fit, Home Home, string Note, string Source, int Order)
{
    public string SaidBy { get; init; } = "";
    public string Language { get; init; } = "";
}
