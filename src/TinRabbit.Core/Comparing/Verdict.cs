using System.Text.Json.Serialization;

namespace TinRabbit.Core.Comparing;

/// <summary>What can be said of a difference.</summary>
[JsonConverter(typeof(JsonStringEnumConverter<Verdict>))]
public enum Verdict
{
    /// <summary>The whole interval is above 0.</summary>
    [JsonStringEnumMemberName("up")]
    Up,

    /// <summary>The whole interval is below 0.</summary>
    [JsonStringEnumMemberName("down")]
    Down,

    /// <summary>It cannot be told yet.</summary>
    [JsonStringEnumMemberName("unclear")]
    Unclear,
}
