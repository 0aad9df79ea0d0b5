namespace TinRabbit.Core.Filling;

/// <summary>Why a pick is not used in a field.</summary>
public enum LeftOutReason
{
    /// <summary>It claims what the product's facts lack.</summary>
    Untrue,

    /// <summary>Its home is another field, or it is parked.</summary>
    Home,

    /// <summary>It is longer than the field, or than each of its items.</summary>
    [System.Text.Json.Serialization.JsonStringEnumMemberName("long")]
    TooLong,

    /// <summary>It contains an avoided term.</summary>
    Avoided,
}
