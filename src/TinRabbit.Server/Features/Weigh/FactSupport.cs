namespace TinRabbit.Server.Features.Weigh;

/// <summary>What a product's facts say of a value.</summary>
public enum FactSupport
{
    /// <summary>They say it.</summary>
    Says,

    /// <summary>They do not mention it.</summary>
    Silent,

    /// <summary>They lack what it claims, or it is avoided.</summary>
    Denies,
}
