using System.Text.Json.Serialization;

namespace TinRabbit.Market;

/// <summary>What a source of numbers can be asked.</summary>
[Flags]
[JsonConverter(typeof(JsonStringEnumConverter<MarketAbilities>))]
public enum MarketAbilities
{
    /// <summary>Nothing.</summary>
    [JsonStringEnumMemberName("none")]
    None = 0,

    /// <summary>How often terms are searched for.</summary>
    [JsonStringEnumMemberName("measure")]
    Measure = 1,

    /// <summary>What the search box offers.</summary>
    [JsonStringEnumMemberName("suggest")]
    Suggest = 2,

    /// <summary>What a search finds, the listings of it, and whether one is among them.</summary>
    [JsonStringEnumMemberName("search")]
    Search = 4,

    /// <summary>What buyers wrote.</summary>
    [JsonStringEnumMemberName("reviews")]
    Reviews = 8,

    /// <summary>Receiving listings, and looking for those that were sent.</summary>
    [JsonStringEnumMemberName("send")]
    Send = 16,

    /// <summary>What happened to a listing day by day.</summary>
    [JsonStringEnumMemberName("days")]
    Days = 32,

    /// <summary>All of it.</summary>
    [JsonStringEnumMemberName("all")]
    All = Measure | Suggest | Search | Reviews | Send | Days,
}
