using System.Text.Json.Serialization;

namespace TinRabbit.Core.Reviews;

/// <summary>Whether buyers who use a phrase were pleased.</summary>
[JsonConverter(typeof(JsonStringEnumConverter<ReviewTone>))]
public enum ReviewTone
{
    /// <summary>Four stars or more on average.</summary>
    [JsonStringEnumMemberName("praise")]
    Praise,

    /// <summary>Three stars or fewer on average.</summary>
    [JsonStringEnumMemberName("complaint")]
    Complaint,

    /// <summary>In between, or without stars.</summary>
    [JsonStringEnumMemberName("mixed")]
    Mixed,
}
