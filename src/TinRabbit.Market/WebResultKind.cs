using System.Text.Json.Serialization;

namespace TinRabbit.Market;

/// <summary>What kind of page answers a web search.</summary>
[JsonConverter(typeof(JsonStringEnumConverter<WebResultKind>))]
public enum WebResultKind
{
    /// <summary>A shop's page of one product.</summary>
    [JsonStringEnumMemberName("product")]
    Product,

    /// <summary>A shop's page of products that belong together.</summary>
    [JsonStringEnumMemberName("category")]
    Category,

    /// <summary>A page that explains something.</summary>
    [JsonStringEnumMemberName("guide")]
    Guide,

    /// <summary>A page that compares several products.</summary>
    [JsonStringEnumMemberName("list")]
    List,

    /// <summary>Anything else, or not known.</summary>
    [JsonStringEnumMemberName("other")]
    Other,
}
