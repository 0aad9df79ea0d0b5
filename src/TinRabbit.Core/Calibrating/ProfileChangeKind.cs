using System.Text.Json.Serialization;

namespace TinRabbit.Core.Calibrating;

/// <summary>What of a platform's profile a change is about.</summary>
[JsonConverter(typeof(JsonStringEnumConverter<ProfileChangeKind>))]
public enum ProfileChangeKind
{
    /// <summary>Whether a fold is on.</summary>
    [JsonStringEnumMemberName("fold")]
    Fold,

    /// <summary>Whether a field is searched.</summary>
    [JsonStringEnumMemberName("field")]
    Field,

    /// <summary>Whether only the first characters of a field are searched.</summary>
    [JsonStringEnumMemberName("indexedFirst")]
    IndexedFirst,

    /// <summary>Whether a search's words may be in different fields.</summary>
    [JsonStringEnumMemberName("wordsCombine")]
    WordsCombine,
}
