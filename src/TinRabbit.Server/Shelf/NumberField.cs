using System.Text.Json.Serialization;

namespace TinRabbit.Server.Shelf;

/// <summary>A number of a reading.</summary>
[JsonConverter(typeof(JsonStringEnumConverter<NumberField>))]
public enum NumberField
{
    [JsonStringEnumMemberName("volume")]
    Volume,

    [JsonStringEnumMemberName("competition")]
    Competition,

    [JsonStringEnumMemberName("titlesHolding")]
    TitlesHolding,

    [JsonStringEnumMemberName("clickCost")]
    ClickCost,

    [JsonStringEnumMemberName("popularity")]
    Popularity,

    [JsonStringEnumMemberName("clicks")]
    Clicks,

    [JsonStringEnumMemberName("orders")]
    Orders,

    [JsonStringEnumMemberName("sales")]
    Sales,

    [JsonStringEnumMemberName("months")]
    Months,
}
