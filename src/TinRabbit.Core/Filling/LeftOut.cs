using System.Text.Json.Serialization;
using TinRabbit.Core.Words;

namespace TinRabbit.Core.Filling;

/// <summary>A pick that is not used in a field.</summary>
/// <param name="Text">The pick.</param>
/// <param name="Reason">Why.</param>
public sealed record LeftOut(string Text, LeftOutReason Reason)
{
    /// <summary>For <see cref="LeftOutReason.Untrue"/>: the words of it that the facts lack.</summary>
    [JsonIgnore]
    public IReadOnlyList<Claim> Claims { get; init; } = [];
}
