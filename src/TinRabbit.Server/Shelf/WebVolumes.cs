namespace TinRabbit.Server.Shelf;

/// <summary>Searches a month on the web of a country.</summary>
/// <param name="ByKey">By key, of the terms that were asked for and that its shelf knows.</param>
/// <param name="Thirds">The thirds of its shelf; null where nothing is known.</param>
public sealed record WebVolumes(IReadOnlyDictionary<string, long> ByKey, Terciles? Thirds)
{
    /// <summary>No searches are known.</summary>
    public static readonly WebVolumes None = new(new Dictionary<string, long>(), null);
}
