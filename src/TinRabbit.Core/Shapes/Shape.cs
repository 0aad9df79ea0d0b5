using System.Text.Json.Serialization;

namespace TinRabbit.Core.Shapes;

/// <summary>The shape of a term's year, in the order of testing.</summary>
public enum Shape
{
    /// <summary>More than a third of the months have no search at all.</summary>
    Sparse,

    /// <summary>One short burst that no other year has.</summary>
    [JsonStringEnumMemberName("one-off")]
    OneOff,

    /// <summary>The same months stand out every year.</summary>
    Seasonal,

    /// <summary>A trend upwards.</summary>
    Rising,

    /// <summary>A trend downwards.</summary>
    Fading,

    /// <summary>None of these.</summary>
    Steady,
}
