using System.Text.Json.Serialization;

namespace TinRabbit.Server.Recordings;

/// <summary>What a recording is of.</summary>
[JsonConverter(typeof(JsonStringEnumConverter<RecordingKind>))]
public enum RecordingKind
{
    /// <summary>What a search found.</summary>
    [JsonStringEnumMemberName("results")]
    Results,

    /// <summary>What a market offers while one types.</summary>
    [JsonStringEnumMemberName("suggestions")]
    Suggestions,

    /// <summary>One listing.</summary>
    [JsonStringEnumMemberName("listing")]
    Listing,
}
