namespace TinRabbit.Market.StandIn;

/// <summary>Chance that can be asked again: the same seed and words always give the same number.</summary>
internal readonly struct Dice(ulong seed)
{
    private readonly ulong _seed = seed;

    /// <summary>Dice for one thing: a market, a term, a month.</summary>
    public Dice For(string what)
    {
        var hash = 14695981039346656037UL ^ _seed;
        foreach (var c in what)
            hash = (hash ^ c) * 1099511628211UL;
        return new(Mix(hash));
    }

    /// <summary>Dice for a numbered thing.</summary>
    public Dice For(int number) => new(Mix(_seed + (ulong)number * 0x9E3779B97F4A7C15UL));

    /// <summary>A number from 0 up to 1.</summary>
    public double Chance => (Mix(_seed) >> 11) * (1.0 / (1UL << 53));

    /// <summary>A number from the standard normal distribution (Box and Muller).</summary>
    public double Normal => Math.Sqrt(-2 * Math.Log(1 - For(1).Chance)) * Math.Cos(2 * Math.PI * For(2).Chance);

    /// <summary>A whole number from 0 up to, not including, <paramref name="sides"/>.</summary>
    public int Pick(int sides) => (int)(Chance * sides);

    // SplitMix64 (Steele, Lea and Flood 2014).
    private static ulong Mix(ulong z)
    {
        z += 0x9E3779B97F4A7C15UL;
        z = (z ^ (z >> 30)) * 0xBF58476D1CE4E5B9UL;
        z = (z ^ (z >> 27)) * 0x94D049BB133111EBUL;
        return z ^ (z >> 31);
    }
}
