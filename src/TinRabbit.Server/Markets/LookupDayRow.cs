namespace TinRabbit.Server.Markets;

/// <summary>How many terms a source of numbers was asked for on a day, where it states a limit.</summary>
public sealed class LookupDayRow
{
    /// <summary>In UTC.</summary>
    public DateOnly Day { get; set; }
    public int Asked { get; set; }
}
