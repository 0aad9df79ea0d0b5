namespace TinRabbit.Server.Markets;

/// <summary>What a lookup is for; the day's budget is shared in this order.</summary>
public enum LookupPurpose
{
    /// <summary>The seller asked for the term: all that is left may be used.</summary>
    Asked,

    /// <summary>Terms that a screen shows by itself, such as spelling variants and combinations: a quarter of the day is left for the seller.</summary>
    Shown,

    /// <summary>Terms that are measured in the background: half of the day is left.</summary>
    Background,
}
